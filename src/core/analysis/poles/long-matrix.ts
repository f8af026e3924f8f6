import {
  difference,
  LONG_EPSILON,
  product,
  quotient,
  type Long,
} from '@/core/numeric/double-double';

/** A number that came out of others, and how far it may be off by rounding. */
export interface Sure {
  value: Long;
  error: number;
}

/** A square matrix in numbers of two doubles, each with a bound of what rounding may have done to it. */
export class LongMatrix {
  private readonly hi: Float64Array;
  private readonly lo: Float64Array;
  private readonly error: Float64Array;

  constructor(readonly size: number) {
    this.hi = new Float64Array(size * size);
    this.lo = new Float64Array(size * size);
    this.error = new Float64Array(size * size);
  }

  set(row: number, column: number, value: Long, error = 0): void {
    const at = row * this.size + column;
    this.hi[at] = value.hi;
    this.lo[at] = value.lo;
    this.error[at] = error;
  }

  get(row: number, column: number): Long {
    const at = row * this.size + column;
    return { hi: this.hi[at], lo: this.lo[at] };
  }

  sure(row: number, column: number): Sure {
    return { value: this.get(row, column), error: this.error[row * this.size + column] };
  }

  /** Size of an entry; 0 where it cannot be told from what rounding leaves of zero. */
  magnitude(row: number, column: number): number {
    const at = row * this.size + column;
    const size = Math.abs(this.hi[at]);
    return size > this.error[at] ? size : 0;
  }

  clear(row: number, column: number): void {
    this.set(row, column, { hi: 0, lo: 0 });
  }

  /** entry (row, column) -= factor * entry (fromRow, fromColumn), with what rounding adds. */
  subtract(row: number, column: number, factor: Sure, fromRow: number, fromColumn: number): void {
    const from = fromRow * this.size + fromColumn;
    if (this.hi[from] === 0) return;
    const term = product(factor.value, this.get(fromRow, fromColumn));
    const next = difference(this.get(row, column), term);
    const at = row * this.size + column;
    const error =
      this.error[at] +
      Math.abs(factor.value.hi) * this.error[from] +
      Math.abs(this.hi[from]) * factor.error +
      LONG_EPSILON * (Math.abs(next.hi) + Math.abs(term.hi));
    this.set(row, column, next, error);
  }
}

/** a / b, with what rounding may have done to it. */
export function ratio(a: Sure, b: Sure): Sure {
  const value = quotient(a.value, b.value);
  const off = a.error + Math.abs(value.hi) * b.error;
  return { value, error: off / Math.abs(b.value.hi) + LONG_EPSILON * Math.abs(value.hi) };
}
