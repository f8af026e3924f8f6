import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { readTakeTable, takeTable } from './take-table';

describe('a take as a table', () => {
  test('comes back as it was written', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.double({ min: 1, max: 1e6, noNaN: true }), {
          minLength: 1,
          maxLength: 30,
          selector: (hz) => hz.toPrecision(8),
        }),
        fc.boolean(),
        (hz, phases) => {
          const frequenciesHz = hz.sort((a, b) => a - b);
          const levelDb = frequenciesHz.map((_, k) => -k / 7);
          const take = {
            frequenciesHz,
            levelDb,
            ...(phases ? { phaseDegrees: levelDb.map((db) => 13 * db) } : {}),
          };
          const back = readTakeTable(takeTable(take));
          back.frequenciesHz.forEach((f, k) => expect(f / frequenciesHz[k]).toBeCloseTo(1, 7));
          back.levelDb.forEach((db, k) => expect(db).toBeCloseTo(levelDb[k], 4));
          expect(back.phaseDegrees?.length).toBe(phases ? hz.length : undefined);
        },
      ),
    );
  });

  test('all of it or nothing: a line that would be left out is named', () => {
    expect(() => readTakeTable('hz,db\n100,0\n200,x1\n300,-1')).toThrow(
      'Line 3 of the take cannot be used',
    );
    expect(() => readTakeTable('100,0\n100,1')).toThrow(
      'the frequency was given before, in line 1',
    );
    expect(() => readTakeTable('100,0\n200,500')).toThrow('500 is no level in dB');
    expect(() => readTakeTable('# Hz S MA R 50\n100 0.5 0\n200 0.4 10')).toThrow(
      'what one port reflects',
    );
    expect(() => readTakeTable('nothing here')).toThrow('no row of numbers');
  });

  test('whatever is in a file, it is a take or a sentence', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200, unit: 'binary' }), (text) => {
        try {
          const { frequenciesHz, levelDb } = readTakeTable(text);
          expect(levelDb).toHaveLength(frequenciesHz.length);
        } catch (error) {
          expect(error).toBeInstanceOf(ReedError);
        }
      }),
      { numRuns: 300 },
    );
  });

  test('ohms come and go as ohms, also from what one port reflects; what is no ohms is refused', () => {
    const read = readTakeTable('hz,ohms,deg\n100,16000,-80\n1000,1600,-45', 'impedance');
    expect(read.levelDb[0] - read.levelDb[1]).toBeCloseTo(20, 9);
    expect(readTakeTable(takeTable(read, 'impedance'), 'impedance').levelDb[0]).toBeCloseTo(
      read.levelDb[0],
      6,
    );
    const port = '# Hz S RI R 50\n100 0.5 0\n200 0 0\n';
    expect(readTakeTable(port, 'impedance').levelDb[0]).toBeCloseTo(20 * Math.log10(150), 9);
    expect(() => readTakeTable(port)).toThrow(/what one port reflects/);
    for (const bad of ['100, 8\n200, 0', '100, 8\n200, -3'])
      expect(() => readTakeTable(bad, 'impedance')).toThrow(/Line 2 .* is no impedance in ohms/);
  });
});
