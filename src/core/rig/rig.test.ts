import fc from 'fast-check';
import { acResponse } from '@/core/analysis/ac/ac';
import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { readFault } from './fault';
import { measureBoard, type RigRequest } from './rig';

const circuit = makeCircuit([
  UNIT_SOURCE,
  { id: 'R1', kind: 'resistor', a: 'in', b: 'mid', ohms: 1e4 },
  { id: 'R2', kind: 'resistor', a: 'mid', b: 'p', ohms: 22e3 },
  { id: 'C1', kind: 'capacitor', a: 'p', b: '0', farads: 1e-8 },
  { id: 'A1', kind: 'op-amp', inPlus: 'p', inMinus: 'out', out: 'out', model: 'ideal' },
]);
const frequenciesHz = Array.from({ length: 200 }, (_, k) => 20 * 1000 ** (k / 199));
const request: RigRequest = {
  circuit,
  probe: 'out',
  frequenciesHz,
  seed: 3,
  rules: { resistor: { tolerance: 0.01 }, capacitor: { tolerance: 0.05 } },
  faults: [],
  noiseDb: 0.1,
};
const fault = (text: string) => readFault(text, circuit);

describe('a simulated board', () => {
  test('is the same for the same seed, and within its tolerances for any', () => {
    expect(measureBoard(request)).toEqual(measureBoard(request));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 ** 32 - 1 }), (seed) => {
        const { factors, gainDb } = measureBoard({ ...request, seed, frequenciesHz: [1000] });
        expect(Math.abs(factors.R1 - 1)).toBeLessThanOrEqual(0.01);
        expect(Math.abs(factors.C1 - 1)).toBeLessThanOrEqual(0.05);
        expect(Math.abs(gainDb)).toBeLessThanOrEqual(3);
      }),
    );
  });

  test('is what its factors say: the solved circuit of those values, its level and its noise', () => {
    const { take, factors, gainDb } = measureBoard(request);
    const board = makeCircuit(
      circuit.parts.map((p) =>
        p.kind === 'resistor'
          ? { ...p, ohms: p.ohms * factors[p.id] }
          : p.kind === 'capacitor'
            ? { ...p, farads: p.farads * factors[p.id] }
            : p,
      ),
    );
    const { re, im } = acResponse(board, { frequenciesHz, probes: ['out'] }).probes.out;
    const off = take.levelDb.map(
      (db, k) => db - gainDb - 20 * Math.log10(Math.hypot(re[k], im[k])),
    );
    const mean = off.reduce((a, b) => a + b, 0) / off.length;
    const sd = Math.sqrt(off.reduce((s, v) => s + (v - mean) ** 2, 0) / off.length);
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(sd).toBeGreaterThan(0.08);
    expect(sd).toBeLessThan(0.12);
  });

  test('a fault changes its part and no other', () => {
    const sound = measureBoard({ ...request, noiseDb: 0 });
    const wrong = measureBoard({ ...request, noiseDb: 0, faults: [fault('C1=*1.3')] });
    expect(wrong.factors).toEqual({ R1: sound.factors.R1, R2: sound.factors.R2 });
    expect(wrong.gainDb).toBe(sound.gainDb);
    // Far above its corner 1.3 times the capacitor over what this board’s was.
    const last = frequenciesHz.length - 1;
    expect(sound.take.levelDb[last] - wrong.take.levelDb[last]).toBeCloseTo(
      20 * Math.log10(1.3 / sound.factors.C1),
      2,
    );
  });
});

describe('faults in words', () => {
  test.each([
    ['C1=*1.3', { is: 'factor', part: 'C1', factor: 1.3 }],
    ['C1=47n', { is: 'value', part: 'C1', value: 47e-9 }],
    ['R1=4k7', { is: 'value', part: 'R1', value: 4700 }],
    ['A1=100k', { is: 'value', part: 'A1', value: 1e5 }],
    ['C1 = missing', { is: 'missing', part: 'C1' }],
    ['R2=shorted', { is: 'shorted', part: 'R2' }],
    ['R1=R2', { is: 'swapped', parts: ['R1', 'R2'] }],
  ])('%s', (text, expected) => {
    const read = readFault(text, circuit);
    expect(Object.entries(read).flat().join()).toContain(Object.keys(expected)[0]);
    for (const [key, value] of Object.entries(expected)) {
      const own = read[key as keyof typeof read] as unknown;
      if (typeof value === 'number') expect((own as number) / value).toBeCloseTo(1, 12);
      else expect(own).toEqual(value);
    }
    expect(() => measureBoard({ ...request, faults: [read] })).not.toThrow();
  });

  test.each([
    ['C9=*2', 'There is no part “C9”'],
    ['mid=*2', 'that is a net'],
    ['C1', '“C1” is no fault: write C2=*1.3'],
    ['C1=*0', 'the factor must be above 0'],
    ['C1=*', 'the factor must be above 0'],
    ['C1=-4n', 'must be above zero'],
    ['C1=lots', 'lots'],
    ['R1=C1', '“R1” and “C1” cannot be swapped'],
    ['R1=R1', 'cannot be swapped'],
  ])('%s is refused', (text, why) => {
    expect(() => readFault(text, circuit)).toThrow(why);
  });

  test('what a part cannot suffer is said', () => {
    expect(() => measureBoard({ ...request, faults: [fault('A1=missing')] })).toThrow(
      '“A1” is an op-amp: it cannot be missing.',
    );
    expect(() => measureBoard({ ...request, faults: [fault('R1=reversed')] })).toThrow(
      'it cannot be reversed',
    );
    expect(() => measureBoard({ ...request, faults: [fault('A1=*0.1')] })).toThrow(
      'is ideal: say its bandwidth',
    );
  });
});
