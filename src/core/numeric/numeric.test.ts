import fc from 'fast-check';
import { minus, ONE, over, plus, scaled, size, squareRoot, times, type Complex } from './complex';
import { findPeak, findZero } from './root';

const real = fc.double({ min: -1e6, max: 1e6, noNaN: true });
const complex = fc.record({ re: real, im: real });
const near = (a: Complex, b: Complex, scale = Math.max(size(a), size(b), 1e-12)) =>
  expect(size(minus(a, b))).toBeLessThanOrEqual(1e-9 * scale);

describe('complex numbers', () => {
  test('products are undone by quotients, sums by differences', () => {
    fc.assert(
      fc.property(complex, complex, (a, b) => {
        near(minus(plus(a, b), b), a, Math.max(size(a), size(b), 1));
        fc.pre(size(b) > 1e-3);
        near(over(times(a, b), b), a, Math.max(size(a), 1e-9));
        expect(size(times(a, b))).toBeCloseTo(size(a) * size(b), -9);
      }),
    );
  });

  test('one leaves everything as it is; scaling is a product with a real number', () => {
    fc.assert(
      fc.property(complex, real, (a, k) => {
        expect(times(a, ONE)).toEqual({ re: a.re - 0 * a.im, im: a.im + 0 * a.re });
        near(scaled(a, k), times(a, { re: k, im: 0 }));
      }),
    );
  });

  test('the square of a root is what it is of, and the root lies to the right', () => {
    fc.assert(
      fc.property(complex, (a) => {
        const root = squareRoot(a);
        near(times(root, root), a, Math.max(size(a), 1e-9));
        expect(root.re).toBeGreaterThanOrEqual(0);
      }),
    );
    expect(squareRoot({ re: -4, im: 0 })).toEqual({ re: 0, im: 2 });
    expect(squareRoot({ re: 0, im: 0 })).toEqual({ re: 0, im: 0 });
  });
});

describe('a root between two ends', () => {
  test('is found to the tolerance, in no more steps than bisection takes, and one', () => {
    const root = fc.double({ min: -0.99, max: 0.99, noNaN: true });
    const shape = fc.constantFrom(1, 3, 9, 0.2);
    fc.assert(
      fc.property(root, shape, fc.boolean(), (at, power, falls) => {
        let calls = 0;
        const f = (x: number) => {
          calls++;
          return (falls ? -1 : 1) * Math.sign(x - at) * Math.abs(x - at) ** power;
        };
        const found = findZero(f, -1, 1, 1e-9);
        expect(Math.abs(found - at)).toBeLessThanOrEqual(2e-9);
        expect(calls).toBeLessThanOrEqual(2 + Math.ceil(Math.log2(2 / 2e-9)) + 1);
      }),
    );
  });

  test('at an end it is that end; without a change of sign it is refused', () => {
    expect(findZero((x) => x, 0, 1, 1e-9)).toBe(0);
    expect(findZero((x) => x - 1, 0, 1, 1e-9)).toBe(1);
    expect(() => findZero((x) => x * x + 1, -1, 1, 1e-9)).toThrow(RangeError);
  });

  test('closed forms', () => {
    expect(findZero((x) => Math.cos(x) - x, 0, 1, 1e-12)).toBeCloseTo(0.739085133215, 10);
    expect(findZero((x) => x ** 3 - 2 * x - 5, 2, 3, 1e-12)).toBeCloseTo(2.094551481542, 10);
  });
});

test('the place of a peak is found wherever it lies', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (at) => {
      const found = findPeak((x) => -((x - at) ** 2), 0, 1, 1e-7);
      expect(Math.abs(found - at)).toBeLessThan(1e-6);
    }),
  );
});
