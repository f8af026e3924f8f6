/**
 * A number as the unevaluated sum of two doubles, about 106 bits long: for the few places where a
 * decision must not hang on rounding.
 *
 * (T. J. Dekker, "A Floating-Point Technique for Extending the Available Precision", Numerische
 * Mathematik 18, 1971; the sum is that of Y. Hida, X. S. Li, D. H. Bailey, "Algorithms for
 * Quad-Double Precision Floating Point Arithmetic", ARITH-15, 2001.)
 */
export interface Long {
  readonly hi: number;
  readonly lo: number;
}

/** One unit in the last place of a `Long` near one, with room for the few that an operation may lose. */
export const LONG_EPSILON = 2 ** -102;

export const ZERO: Long = { hi: 0, lo: 0 };
export const LONG_ONE: Long = { hi: 1, lo: 0 };

export const long = (x: number): Long => ({ hi: x, lo: 0 });

/** What a + b, rounded to `sum`, has lost (D. E. Knuth). */
function lostInSum(a: number, b: number, sum: number): number {
  const b1 = sum - a;
  return a - (sum - b1) + (b - b1);
}

/** 2^27 + 1 cuts a double into two halves whose products are exact (G. W. Veltkamp). */
const SPLITTER = 134217729;

/** What a * b, rounded to `product`, has lost. */
function lostInProduct(a: number, b: number, product: number): number {
  const [ta, tb] = [SPLITTER * a, SPLITTER * b];
  const [a1, b1] = [ta - (ta - a), tb - (tb - b)];
  const [a2, b2] = [a - a1, b - b1];
  return a1 * b1 - product + a1 * b2 + a2 * b1 + a2 * b2;
}

/** Bring a large and a small part into the form where the small one is below half a unit of the large. */
function joined(large: number, small: number): Long {
  const hi = large + small;
  return { hi, lo: small - (hi - large) };
}

export function sum(a: Long, b: Long): Long {
  const s = a.hi + b.hi;
  const t = a.lo + b.lo;
  const lostS = lostInSum(a.hi, b.hi, s);
  const lostT = lostInSum(a.lo, b.lo, t);
  const first = joined(s, lostS + t);
  return joined(first.hi, first.lo + lostT);
}

export const negative = (a: Long): Long => ({ hi: -a.hi, lo: -a.lo });
export const difference = (a: Long, b: Long): Long => sum(a, negative(b));

export function product(a: Long, b: Long): Long {
  const p = a.hi * b.hi;
  return joined(p, lostInProduct(a.hi, b.hi, p) + (a.hi * b.lo + a.lo * b.hi));
}

/** a times a plain number. */
export const multiple = (a: Long, k: number): Long => product(a, long(k));

export function quotient(a: Long, b: Long): Long {
  // Long division: each digit is a double, and what it leaves is exact.
  const q1 = a.hi / b.hi;
  const r1 = difference(a, multiple(b, q1));
  const q2 = r1.hi / b.hi;
  const r2 = difference(r1, multiple(b, q2));
  return sum(joined(q1, q2), long(r2.hi / b.hi));
}

export function root(a: Long): Long {
  if (a.hi <= 0) return ZERO;
  // One Newton step of the double's root (A. Karp, P. Markstein, ACM TOMS 23, 1997).
  const x = Math.sqrt(a.hi);
  const left = difference(a, product(long(x), long(x)));
  return joined(x, left.hi / (2 * x));
}

export const size = (a: Long): Long => (a.hi < 0 ? negative(a) : a);
export const plain = (a: Long): number => a.hi + a.lo;

/**
 * A list of numbers of two doubles from which products are taken, many times over: as `difference`
 * and `product`, without an object for each step. Of real and imaginary parts in turn.
 */
export class Remainder {
  private readonly hi: Float64Array;
  private readonly lo: Float64Array;

  constructor(private readonly size: number) {
    this.hi = new Float64Array(2 * size);
    this.lo = new Float64Array(2 * size);
  }

  begin({ re, im }: { re: Float64Array; im: Float64Array }): void {
    for (let i = 0; i < this.size; i++) {
      this.hi[2 * i] = re[i];
      this.hi[2 * i + 1] = im[i];
    }
    this.lo.fill(0);
  }

  /** The number at `at` less (hi + lo) x. */
  subtract(at: number, hi: number, lo: number, x: number): void {
    const p = hi * x;
    const [ta, tb] = [SPLITTER * hi, SPLITTER * x];
    const [a1, b1] = [ta - (ta - hi), tb - (tb - x)];
    const [a2, b2] = [hi - a1, x - b1];
    const lostP = a1 * b1 - p + a1 * b2 + a2 * b1 + a2 * b2 + lo * x;
    const a = this.hi[at];
    const s = a - p;
    const b = s - a;
    const lostS = a - (s - b) + (-p - b);
    const small = this.lo[at] + lostS - lostP;
    const sum = s + small;
    this.hi[at] = sum;
    this.lo[at] = small - (sum - s);
  }

  rounded(): { re: Float64Array; im: Float64Array } {
    const part = (from: number) =>
      Float64Array.from(
        { length: this.size },
        (_, i) => this.hi[2 * i + from] + this.lo[2 * i + from],
      );
    return { re: part(0), im: part(1) };
  }
}
