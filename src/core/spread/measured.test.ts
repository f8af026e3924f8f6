import fc from 'fast-check';
import { MEASURED_LIMITS, measuredText, measuredWords, readMeasured } from './measured';

test('per cents and measured values are read, and what they are off by is the same', () => {
  const close = (list: number[]) => list.map((x) => Number(x.toFixed(9)));
  expect(close(readMeasured('-0.4 1.2 %, 0.3', 'farads', 'point'))).toEqual([-0.004, 0.012, 0.003]);
  expect(close(readMeasured('10n: 9.96n 10n12', 'farads', 'point'))).toEqual([-0.004, 0.012]);
  expect(close(readMeasured('-0,4 1,2; 0,3', 'ohms', 'comma'))).toEqual([-0.004, 0.012, 0.003]);
  expect(close(readMeasured('4k7: 4,7k 4,747k\n2', 'ohms', 'comma'))).toEqual([0, 0.01, 0.02]);
  expect(readMeasured('  \n ', 'ohms', 'point')).toEqual([]);
});

test('what is no measurement is refused by name', () => {
  const read = (text: string) => () => readMeasured(text, 'farads', 'point');
  expect(read('1 two 3')).toThrow('“two”');
  expect(read('10n: 9.9n 22n 101n')).toThrow(/“101n” is 910 % off: that is another part/);
  expect(read('0: 1n')).toThrow(/no value that pieces could be off from/);
  expect(read('x: 1n')).toThrow('“x”');
  expect(read('1 '.repeat(501))).toThrow(/501 pieces are more than are needed/);
});

test('what is kept is typed again as it was, to four figures', () => {
  const off = fc.double({ min: MEASURED_LIMITS.least, max: MEASURED_LIMITS.most, noNaN: true });
  fc.assert(
    fc.property(
      fc.array(off, { maxLength: 20 }),
      fc.constantFrom('point', 'comma'),
      (list, mark) => {
        const again = readMeasured(measuredText(list, mark), 'ohms', mark);
        expect(again).toHaveLength(list.length);
        again.forEach((x, i) =>
          expect(Math.abs(x - list[i])).toBeLessThanOrEqual(5e-4 * Math.abs(list[i]) + 1e-12),
        );
      },
    ),
  );
  expect(measuredWords([-0.004, 0.012], 'point')).toBe(
    '2 pieces, 0.4 % in the mean, 1.2 % at the most',
  );
});
