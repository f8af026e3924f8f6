import fc from 'fast-check';
import { frequencyLabel, frequencyTicks } from '@/core/quantity/frequency-ticks';
import { ohmsAxis, delayAxis, levelAxis, niceTicks, phaseAxis, valueAt } from './axis';

const hz = fc.double({ min: -2, max: 6, noNaN: true }).map((x) => 10 ** x);
const trace = fc
  .array(fc.double({ min: -200, max: 60, noNaN: true }), { minLength: 2, maxLength: 40 })
  .map((values) => Float64Array.from(values));

describe('axes', () => {
  test('frequencies: 1, 2 and 5 of every decade inside, rising, with short words', () => {
    expect(frequencyTicks(20, 20_000)).toEqual([
      20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000,
    ]);
    expect(frequencyTicks(20, 20_000).map(frequencyLabel).join(' ')).toBe(
      '20 50 100 200 500 1k 2k 5k 10k 20k',
    );
    expect(frequencyLabel(2.2e6)).toBe('2.2M');
    // Over many decades only their beginnings.
    expect(frequencyTicks(0.01, 1e5)).toEqual([0.01, 0.1, 1, 10, 100, 1000, 10_000, 100_000]);
    fc.assert(
      fc.property(hz, fc.double({ min: 1.5, max: 1e5, noNaN: true }), (from, ratio) => {
        const ticks = frequencyTicks(from, from * ratio);
        ticks.forEach((tick, k) => {
          expect(tick).toBeGreaterThanOrEqual(from * 0.999);
          expect(tick).toBeLessThanOrEqual(from * ratio * 1.001);
          if (k > 0) expect(tick).toBeGreaterThan(ticks[k - 1]);
        });
      }),
    );
  });

  test.each([
    ['level', levelAxis],
    ['phase', phaseAxis],
  ] as const)('%s: the highest point lies inside, ticks lie on round steps', (_, axisOf) => {
    fc.assert(
      fc.property(fc.array(trace, { minLength: 1, maxLength: 4 }), (traces) => {
        const { domain, ticks } = axisOf(traces);
        const top = Math.max(...traces.flatMap((t) => [...t]));
        expect(domain[0]).toBeLessThan(domain[1]);
        expect(top).toBeLessThanOrEqual(domain[1]);
        expect(ticks.length).toBeGreaterThan(1);
        const step = ticks[1] - ticks[0];
        for (const [k, tick] of ticks.entries()) {
          expect(tick).toBeGreaterThanOrEqual(domain[0]);
          expect(tick).toBeLessThanOrEqual(domain[1] + 1e-9);
          if (k > 0) expect(tick - ticks[k - 1]).toBeCloseTo(step, 9);
        }
      }),
    );
  });

  test('an axis of nothing is an axis all the same', () => {
    for (const axis of [levelAxis([]), phaseAxis([]), delayAxis([])]) {
      expect(axis.domain[0]).toBeLessThan(axis.domain[1]);
      expect(axis.ticks.length).toBeGreaterThan(1);
    }
  });

  test('delays begin at zero, unless some come early', () => {
    expect(delayAxis([Float64Array.of(1e-4, 9e-4)]).domain[0]).toBe(0);
    expect(delayAxis([Float64Array.of(-2e-4, 9e-4)]).domain[0]).toBeLessThanOrEqual(-2e-4);
  });

  test('round values: as many as asked for, within a factor, on steps of 1, 2 or 5', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        fc.double({ min: 1e-3, max: 1e4, noNaN: true }),
        fc.integer({ min: 2, max: 10 }),
        (low, span, count) => {
          const ticks = niceTicks(low, low + span, count);
          expect(ticks.length).toBeLessThanOrEqual(count + 1);
          if (ticks.length < 2) return;
          const step = ticks[1] - ticks[0];
          const lead = step / 10 ** Math.floor(Math.log10(step * 1.000001));
          expect([1, 2, 5].some((m) => Math.abs(lead - m) < 1e-6 * m)).toBe(true);
        },
      ),
    );
  });
});

describe('reading a curve', () => {
  test('a value between points lies on the line between them, on the log axis', () => {
    const [x, y] = [Float64Array.of(10, 100, 1000), Float64Array.of(0, -20, -40)];
    expect(valueAt(x, y, 10 ** 1.5)).toBeCloseTo(-10, 9);
    expect(valueAt(x, y, 1000)).toBeCloseTo(-40, 9);
    expect(valueAt(x, y, 5)).toBeNaN();
  });
});

test('an axis of ohms has 1, 2 and 5 in each decade, and room about the curve', () => {
  const { domain, ticks, labels } = ohmsAxis([[20 * Math.log10(4), 20 * Math.log10(60)]]);
  expect(labels).toEqual(['5', '10', '20', '50']);
  expect(ticks[1]).toBeCloseTo(20, 9);
  expect(domain[0]).toBeLessThan(20 * Math.log10(4));
  expect(ohmsAxis([[0, 100]]).labels).toEqual(['1', '10', '100', '1k', '10k', '100k']);
});
