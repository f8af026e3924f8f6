import fc from 'fast-check';
import {
  around,
  nearestOffer,
  pairsNear,
  seriesOffers,
  USUAL_TRIMMERS,
  withTrimmer,
} from './offers';

const E12 = seriesOffers('E12', 100, 1e6);

test('a series is listed over decades, both ends included', () => {
  const values = seriesOffers('E3', 10e-9, 1e-6).map((o) => o.value);
  expect(values).toEqual([1e-8, 2.2e-8, 4.7e-8, 1e-7, 2.2e-7, 4.7e-7, 1e-6]);
});

test('the nearest and the two around a value are what a look through the list finds', () => {
  fc.assert(
    fc.property(fc.double({ min: 90, max: 1.1e6, noNaN: true }), (value) => {
      const far = (x: number) => Math.abs(Math.log(x / value));
      const best = E12.reduce((a, b) => (far(b.value) < far(a.value) ? b : a));
      expect(far(nearestOffer(E12, value)!.value)).toBeCloseTo(far(best.value), 12);
      const [below, above] = around(E12, value);
      if (below) expect(below.value).toBeLessThanOrEqual(value * (1 + 1e-9));
      if (above) expect(above.value).toBeGreaterThan(value);
    }),
  );
});

test('no pair comes nearer than the first that is offered', () => {
  const adds = 'series';
  fc.assert(
    fc.property(
      fc.double({ min: 2e3, max: 2e4, noNaN: true }),
      fc.constantFrom('parallel' as const, 'series' as const),
      (value, how) => {
        const far = (x: number) => Math.abs(Math.log(x / value));
        const made = (a: number, b: number) => (how === adds ? a + b : (a * b) / (a + b));
        let best = Infinity;
        for (const a of E12)
          for (const b of E12)
            if (b.value <= a.value && b.value / a.value >= 1e-3)
              best = Math.min(best, far(made(a.value, b.value)));
        const [first] = pairsNear(E12, how, adds, value);
        expect(far(first.value)).toBeCloseTo(best, 9);
        expect(first.value).toBeCloseTo(made(first.made.of[0], first.made.of[1]), 6);
      },
    ),
    { numRuns: 60 },
  );
});

test('a trimmer is the smallest that reaches a tenth either way, with its value off the ends', () => {
  const fixed = seriesOffers('E12', 10, 1e6);
  fc.assert(
    fc.property(fc.double({ min: 200, max: 5e5, noNaN: true }), (value) => {
      const { made, value: set } = withTrimmer(fixed, USUAL_TRIMMERS, value)!;
      const [one, track] = made.of;
      expect(set).toBe(value);
      expect(one + track).toBeGreaterThan(value * 1.02);
      expect(one).toBeLessThan(value * 0.98);
      expect(track).toBeGreaterThanOrEqual(0.2 * value);
      expect(track).toBeLessThan(value * 1.05);
      const turn = (value - one) / track;
      expect(turn).toBeGreaterThanOrEqual(0.1);
      expect(turn).toBeLessThanOrEqual(0.9);
    }),
  );
  expect(withTrimmer(fixed, [], 1000)).toBeUndefined();
});
