import fc from 'fast-check';
import {
  difference,
  long,
  plain,
  product,
  quotient,
  Remainder,
  root,
  sum,
  type Long,
} from './double-double';

/** A finite double as an exact fraction: whole numbers over a power of two. */
function exact(x: number): { n: bigint; shift: number } {
  let shift = 0;
  while (!Number.isInteger(x)) {
    x *= 2;
    shift++;
  }
  return { n: BigInt(x), shift };
}

const BITS = 400;
/** A `Long` in units of 2^-400, exactly. */
const units = ({ hi, lo }: Long): bigint =>
  [hi, lo].reduce((total, x) => {
    const { n, shift } = exact(x);
    return total + (n << BigInt(BITS - shift));
  }, 0n);

const size = (x: bigint): bigint => (x < 0n ? -x : x);
/** Whether two numbers in units differ by less than one part in 2^100. */
const alike = (a: bigint, b: bigint): boolean => size(a - b) << 100n <= size(b) + 1n;

const doubles = fc
  .tuple(
    fc.double({ min: 0.5, max: 1, noNaN: true }),
    fc.integer({ min: -30, max: 30 }),
    fc.boolean(),
  )
  .map(([m, e, negative]) => (negative ? -m : m) * 2 ** e);
const longs = fc.tuple(doubles, doubles).map(([a, b]) => sum(long(a), long(b * 2 ** -60)));

describe('numbers of two doubles, held against whole numbers', () => {
  test('sums, differences and products', () => {
    fc.assert(
      fc.property(longs, longs, (a, b) => {
        const scale = size(units(a)) + size(units(b));
        // A sum is as good as its larger term.
        expect(size(units(sum(a, b)) - units(a) - units(b)) << 100n <= scale).toBe(true);
        expect(size(units(difference(a, b)) - units(a) + units(b)) << 100n <= scale).toBe(true);
        expect(alike(units(product(a, b)), (units(a) * units(b)) >> BigInt(BITS))).toBe(true);
      }),
    );
  });

  test('quotients and roots give back what they came from', () => {
    fc.assert(
      fc.property(longs, longs, (a, b) => {
        expect(alike(units(product(quotient(a, b), b)), units(a))).toBe(true);
        const square = product(a, a);
        const back = root(square);
        expect(alike(size(units(back)), size(units(a)))).toBe(true);
      }),
    );
  });

  test('many products taken off one number', () => {
    fc.assert(
      fc.property(
        doubles,
        fc.array(fc.tuple(longs, doubles), { maxLength: 12 }),
        (start, taken) => {
          const left = new Remainder(1);
          left.begin({ re: Float64Array.of(start), im: Float64Array.of(0) });
          let wanted = long(start);
          for (const [a, x] of taken) {
            left.subtract(0, a.hi, a.lo, x);
            wanted = difference(wanted, product(a, long(x)));
          }
          const scale = taken.reduce((s, [a, x]) => s + Math.abs(a.hi * x), Math.abs(start));
          expect(Math.abs(left.rounded().re[0] - plain(wanted))).toBeLessThan(
            1e-28 * scale + 2e-16 * Math.abs(plain(wanted)),
          );
          expect(left.rounded().im[0]).toBe(0);
        },
      ),
    );
  });

  test('what a double cannot hold is kept', () => {
    const third = quotient(long(1), long(3));
    expect(plain(third)).toBe(1 / 3);
    const left = difference(long(1), product(third, long(3)));
    expect(Math.abs(plain(left))).toBeLessThan(1e-31);
    expect(plain(difference(sum(long(1), long(1e-25)), long(1)))).toBe(1e-25);
  });
});
