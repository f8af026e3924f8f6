import {
  difference,
  long,
  LONG_EPSILON,
  multiple,
  plain,
  product,
  quotient,
  sum,
  ZERO,
  type Long,
} from '@/core/numeric/double-double';
import type { ComplexTrace } from '../ac/complex';
import type { ExactMatrix } from './exact-matrix';

const { hypot, log2, max, round } = Math;

/** A matrix entry on its way through the elimination. */
interface Cell {
  re: Long;
  im: Long;
  /** Size of the largest term that went into it: what is far below it is rounding. */
  most: number;
}

/** No pivot is left for this unknown; the equation is one that nothing of it is left of. */
export interface Undetermined {
  unknown: number;
  equation: number;
}

/** Of a term this much is rounding, after some hundred operations. */
const ROUNDING = 2 ** 10 * LONG_EPSILON;
/** A pivot this much smaller than the largest of its column (rows being of like size) will do. */
const THRESHOLD = 0.1;

/**
 * The careful twin of the planned elimination: G + s C eliminated in numbers of two doubles, so that
 * digits which cancel were there to spare. Pivots are looked for at each frequency: the column with
 * fewest entries, in it the shortest row among the large ones (threshold pivoting, I. S. Duff, A. M.
 * Erisman, J. K. Reid, "Direct Methods for Sparse Matrices", chapter 5). What cannot be told from
 * rounding counts as zero.
 *
 * Some hundred microseconds for a few dozen unknowns: for the rare frequency where the plan fails.
 */
export class CarefulSolver {
  constructor(private readonly matrix: ExactMatrix) {}

  /**
   * Solve (G + j omega C) x = rhs, or the transposed system.
   *
   * @param rhs by equation (by unknown when transposed); left unchanged
   */
  solve(omega: number, rhs: ComplexTrace, transposed = false): ComplexTrace | Undetermined {
    const n = this.matrix.size;
    const rows = this.rowsAt(omega, transposed);
    const columns = Array.from({ length: n }, () => new Set<number>());
    rows.forEach((row, i) => row.forEach((_, j) => columns[j].add(i)));
    const scale = rows.map((row) => {
      let most = 0;
      for (const cell of row.values()) most = max(most, sizeOf(cell));
      return most > 0 ? 1 / most : 1;
    });
    const b = Array.from({ length: n }, (_, i) => ({ re: long(rhs.re[i]), im: long(rhs.im[i]) }));
    const order: { row: number; column: number }[] = [];
    const live = new Set(Array.from({ length: n }, (_, i) => i));
    while (live.size > 0) {
      const pivot = choose(live, columns, rows, scale);
      if (pivot.row < 0) {
        const spare = rows.findIndex((row, i) => row.size === 0 && !order.some((o) => o.row === i));
        const [unknown, equation] = [pivot.column, spare < 0 ? pivot.column : spare];
        return transposed ? { unknown: equation, equation: unknown } : { unknown, equation };
      }
      order.push(pivot);
      live.delete(pivot.column);
      eliminate(pivot, rows, columns, b);
    }
    const x = Array.from({ length: n }, () => ({ re: ZERO, im: ZERO }));
    for (const { row, column } of order.reverse()) {
      let left = b[row];
      for (const [j, cell] of rows[row]) if (j !== column) left = minus(left, times(cell, x[j]));
      x[column] = over(left, rows[row].get(column)!);
    }
    return {
      re: Float64Array.from(x, ({ re }) => plain(re)),
      im: Float64Array.from(x, ({ im }) => plain(im)),
    };
  }

  private rowsAt(omega: number, transposed: boolean): Map<number, Cell>[] {
    const rows = Array.from({ length: this.matrix.size }, () => new Map<number, Cell>());
    for (const { row, column, g, c, mostG, mostC } of this.matrix.slots) {
      const cell = { re: g, im: multiple(c, omega), most: max(mostG, mostC * omega) };
      if (vanished(cell)) continue;
      if (transposed) rows[column].set(row, cell);
      else rows[row].set(column, cell);
    }
    return rows;
  }
}

interface Pair {
  re: Long;
  im: Long;
}

const times = (a: Pair, b: Pair): Pair => ({
  re: difference(product(a.re, b.re), product(a.im, b.im)),
  im: sum(product(a.re, b.im), product(a.im, b.re)),
});
const minus = (a: Pair, b: Pair): Pair => ({
  re: difference(a.re, b.re),
  im: difference(a.im, b.im),
});
function over(a: Pair, b: Pair): Pair {
  // Both parts brought to a size near one first, so that squares stay in reach.
  const scale = 2 ** -round(log2(sizeOf(b)));
  const [re, im] = [multiple(b.re, scale), multiple(b.im, scale)];
  const norm = sum(product(re, re), product(im, im));
  const top = times(a, { re: multiple(re, scale), im: multiple(im, -scale) });
  return { re: quotient(top.re, norm), im: quotient(top.im, norm) };
}

const sizeOf = ({ re, im }: Pair): number => hypot(re.hi, im.hi);
const vanished = (cell: Cell): boolean => sizeOf(cell) <= ROUNDING * cell.most;

/** The next pivot; `row` is -1 where its column has nothing left. */
function choose(
  live: ReadonlySet<number>,
  columns: readonly Set<number>[],
  rows: readonly Map<number, Cell>[],
  scale: readonly number[],
): { row: number; column: number } {
  let column = -1;
  for (const j of live) if (column < 0 || columns[j].size < columns[column].size) column = j;
  let most = 0;
  for (const i of columns[column]) most = max(most, sizeOf(rows[i].get(column)!) * scale[i]);
  let row = -1;
  for (const i of columns[column]) {
    const large = sizeOf(rows[i].get(column)!) * scale[i] >= THRESHOLD * most;
    if (large && (row < 0 || rows[i].size < rows[row].size)) row = i;
  }
  return { row, column };
}

/** Take the pivot's row off all others that have an entry in its column. */
function eliminate(
  pivot: { row: number; column: number },
  rows: readonly Map<number, Cell>[],
  columns: readonly Set<number>[],
  b: Pair[],
): void {
  const own = rows[pivot.row];
  for (const j of own.keys()) columns[j].delete(pivot.row);
  const p = own.get(pivot.column)!;
  for (const i of columns[pivot.column]) {
    const row = rows[i];
    const factor = over(row.get(pivot.column)!, p);
    row.delete(pivot.column);
    for (const [j, above] of own) {
      if (j === pivot.column) continue;
      const term = times(factor, above);
      const cell = row.get(j) ?? { re: ZERO, im: ZERO, most: 0 };
      const next = { ...minus(cell, term), most: max(cell.most, sizeOf(term)) };
      if (vanished(next)) {
        row.delete(j);
        columns[j].delete(i);
      } else {
        row.set(j, next);
        columns[j].add(i);
      }
    }
    b[i] = minus(b[i], times(factor, b[pivot.row]));
  }
  columns[pivot.column].clear();
}
