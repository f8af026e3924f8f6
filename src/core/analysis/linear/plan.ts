import type { SlotMatrix } from './matrix';

/**
 * The order in which a sparse matrix is eliminated, worked out once and then executed for every
 * frequency, board or time step.
 *
 * `slots` counts the matrix's own slots followed by the fill-in that elimination makes. Pivot k
 * stands at row `pivotRow[k]`, column `pivotColumn[k]`, slot `pivotSlot[k]`.
 */
export interface Plan {
  size: number;
  slots: number;
  ownSlots: number;
  pivotRow: Int32Array;
  pivotColumn: Int32Array;
  pivotSlot: Int32Array;
  /** Entries below pivot k: slots lowerSlot[lowerStart[k] .. lowerStart[k+1]] in rows lowerRow[...]. */
  lowerStart: Int32Array;
  lowerSlot: Int32Array;
  lowerRow: Int32Array;
  /** Entries right of pivot k, likewise. */
  upperStart: Int32Array;
  upperSlot: Int32Array;
  upperColumn: Int32Array;
  /** For each (lower, upper) pair of pivot k, lower first: the slot that the product is taken from. */
  targetStart: Int32Array;
  targetSlot: Int32Array;
}

/** The matrix has no unique solution; `unknown` is one that nothing determines. */
export class SingularPlan extends Error {
  constructor(
    readonly unknown: number,
    readonly equation: number,
  ) {
    super('singular');
  }
}

/** How much smaller than the largest of its column a pivot may be (after scaling). */
const THRESHOLD = 1e-3;
/** Below this, relative to the scaled matrix, a value is taken for the remains of a cancellation. */
const VANISHED = 1e-13;

/** Rows and columns that are best left to the end: 1 for each. */
export interface Late {
  rows: Uint8Array;
  columns: Uint8Array;
}

/**
 * Choose pivots that keep the matrix sparse (H. M. Markowitz, "The elimination form of the inverse",
 * Management Science 3, 1957) among those large enough to be safe (threshold pivoting, I. S. Duff,
 * A. M. Erisman, J. K. Reid, "Direct Methods for Sparse Matrices", ch. 5) at every sample point.
 *
 * @param samples values of the slots at a few representative points, real and imaginary parts
 * @param late lines whose values change more often than the others': what can be eliminated without
 *   them comes first
 * @throws SingularPlan when at some step no safe pivot is left
 */
export function planElimination(
  matrix: SlotMatrix,
  samples: { re: Float64Array; im: Float64Array }[],
  late?: Late,
): Plan {
  const n = matrix.size;
  const count = samples.length;
  const ownSlots = matrix.rows.length;
  const rows = Array.from({ length: n }, () => new Map<number, number>()); // column -> slot
  const columns = Array.from({ length: n }, () => new Map<number, number>()); // row -> slot
  const values = new SampleValues(count, ownSlots);
  // Each sample by itself: what counts at one end of the axis may be nothing beside the other end.
  const scales = samples.map((sample) => equilibrate(matrix, [sample]));
  for (let slot = 0; slot < ownSlots; slot++) {
    const [row, column] = [matrix.rows[slot], matrix.columns[slot]];
    rows[row].set(column, slot);
    columns[column].set(row, slot);
    const at = values.add();
    for (let k = 0; k < count; k++) {
      const factor = scales[k].row[row] * scales[k].column[column];
      values.data[at + 2 * k] = samples[k].re[slot] * factor;
      values.data[at + 2 * k + 1] = samples[k].im[slot] * factor;
    }
  }

  const pivots: { row: number; column: number; slot: number }[] = [];
  const lower: { slot: number; row: number }[][] = [];
  const upper: { slot: number; column: number }[][] = [];
  const targets: number[][] = [];
  const liveColumns = new Set(Array.from({ length: n }, (_, i) => i));
  const liveRows = new Set(liveColumns);

  const sizes = new PivotSizes(values);
  for (const column of columns) sizes.measure(column);

  while (liveColumns.size > 0) {
    const pivot = bestPivot(rows, columns, sizes.of, liveColumns, late);
    if (!pivot)
      throw new SingularPlan(
        emptiest(liveColumns, columns, values),
        emptiest(liveRows, rows, values),
      );
    const below = [...columns[pivot.column]]
      .filter(([row]) => row !== pivot.row)
      .map(([row, slot]) => ({ row, slot }));
    const right = [...rows[pivot.row]]
      .filter(([column]) => column !== pivot.column)
      .map(([column, slot]) => ({ column, slot }));
    const hit: number[] = [];
    for (const l of below) {
      for (const u of right) {
        let slot = rows[l.row].get(u.column);
        if (slot === undefined) {
          slot = values.add() / values.stride;
          rows[l.row].set(u.column, slot);
          columns[u.column].set(l.row, slot);
        }
        hit.push(slot);
        values.subtractProduct(slot, l.slot, u.slot, pivot.slot);
      }
    }
    for (const l of below) rows[l.row].delete(pivot.column);
    for (const u of right) {
      columns[u.column].delete(pivot.row);
      sizes.measure(columns[u.column]);
    }
    rows[pivot.row].clear();
    columns[pivot.column].clear();
    liveColumns.delete(pivot.column);
    liveRows.delete(pivot.row);
    pivots.push(pivot);
    lower.push(below);
    upper.push(right);
    targets.push(hit);
  }

  const starts = (lists: unknown[][]) => {
    const start = new Int32Array(n + 1);
    lists.forEach((list, k) => (start[k + 1] = start[k] + list.length));
    return start;
  };
  return {
    size: n,
    slots: values.slots,
    ownSlots,
    pivotRow: Int32Array.from(pivots, (p) => p.row),
    pivotColumn: Int32Array.from(pivots, (p) => p.column),
    pivotSlot: Int32Array.from(pivots, (p) => p.slot),
    lowerStart: starts(lower),
    lowerSlot: Int32Array.from(lower.flat(), (e) => e.slot),
    lowerRow: Int32Array.from(lower.flat(), (e) => e.row),
    upperStart: starts(upper),
    upperSlot: Int32Array.from(upper.flat(), (e) => e.slot),
    upperColumn: Int32Array.from(upper.flat(), (e) => e.column),
    targetStart: starts(targets),
    targetSlot: Int32Array.from(targets.flat()),
  };
}

/** Complex values of every slot at each sample point, in one growing array. */
class SampleValues {
  readonly stride: number;
  data: Float64Array;
  slots = 0;

  constructor(
    private readonly count: number,
    expected: number,
  ) {
    this.stride = 2 * count;
    this.data = new Float64Array(this.stride * (2 * expected + 16));
  }

  /** A further slot, all zero; returns where its values begin. */
  add(): number {
    const at = this.slots++ * this.stride;
    if (at + this.stride > this.data.length) {
      const larger = new Float64Array(2 * this.data.length);
      larger.set(this.data);
      this.data = larger;
    }
    return at;
  }

  /** Size of sample k; the values are scaled, so plain squares neither over- nor underflow. */
  magnitude(slot: number, k: number): number {
    const at = slot * this.stride + 2 * k;
    return Math.sqrt(this.data[at] * this.data[at] + this.data[at + 1] * this.data[at + 1]);
  }

  /** target -= (l / p) u at every sample. */
  subtractProduct(target: number, l: number, u: number, p: number): void {
    const { data, stride } = this;
    for (let k = 0; k < 2 * this.count; k += 2) {
      const [tk, lk, uk, pk] = [
        target * stride + k,
        l * stride + k,
        u * stride + k,
        p * stride + k,
      ];
      const norm = data[pk] * data[pk] + data[pk + 1] * data[pk + 1];
      const lr = (data[lk] * data[pk] + data[lk + 1] * data[pk + 1]) / norm;
      const li = (data[lk + 1] * data[pk] - data[lk] * data[pk + 1]) / norm;
      data[tk] -= lr * data[uk] - li * data[uk + 1];
      data[tk + 1] -= lr * data[uk + 1] + li * data[uk];
    }
  }

  /** The largest number of a slot, for comparing what is left. */
  largest(slot: number): number {
    let most = 0;
    for (let i = 0; i < this.stride; i++)
      most = Math.max(most, Math.abs(this.data[slot * this.stride + i]));
    return most;
  }

  get samples(): number {
    return this.count;
  }
}

/**
 * How large each entry is as a pivot: its size at the sample point where it is smallest, and nothing where
 * it would not be safe at one of them. A column is measured again only after something in it changed.
 */
class PivotSizes {
  readonly of: number[] = [];
  private readonly columnMax: Float64Array;

  constructor(private readonly values: SampleValues) {
    this.columnMax = new Float64Array(values.samples);
  }

  /** @param column slots by row */
  measure(column: ReadonlyMap<number, number>): void {
    const { values, columnMax } = this;
    const count = values.samples;
    columnMax.fill(0);
    for (const slot of column.values())
      for (let k = 0; k < count; k++)
        columnMax[k] = Math.max(columnMax[k], values.magnitude(slot, k));
    for (const slot of column.values()) {
      let size = Infinity;
      for (let k = 0; k < count; k++) {
        const here = values.magnitude(slot, k);
        size = Math.min(size, here > VANISHED && here >= THRESHOLD * columnMax[k] ? here : 0);
      }
      this.of[slot] = size;
    }
  }
}

/** The safe pivot that makes least fill-in; of equals, the largest. */
function bestPivot(
  rows: Map<number, number>[],
  columns: Map<number, number>[],
  sizes: readonly number[],
  live: Set<number>,
  late: Late | undefined,
): { row: number; column: number; slot: number } | undefined {
  const lateness = rows.length * rows.length;
  let best: { row: number; column: number; slot: number } | undefined;
  let bestCost = Infinity;
  let bestSize = 0;
  for (const column of live)
    for (const [row, slot] of columns[column]) {
      const fill = (rows[row].size - 1) * (columns[column].size - 1);
      const cost = late && late.rows[row] + late.columns[column] > 0 ? fill + lateness : fill;
      if (cost > bestCost) continue;
      const size = sizes[slot];
      if (size > 0 && (cost < bestCost || size > bestSize)) {
        best = { row, column, slot };
        bestCost = cost;
        bestSize = size;
      }
    }
  return best;
}

/** Of the live lines (rows or columns) the one whose entries are smallest: what nothing determines. */
function emptiest(live: Set<number>, lines: Map<number, number>[], values: SampleValues): number {
  let worst = -1;
  let least = Infinity;
  for (const line of live) {
    let size = 0;
    for (const slot of lines[line].values()) size = Math.max(size, values.largest(slot));
    if (size < least) [worst, least] = [line, size];
  }
  return worst;
}

/**
 * Row and column factors that bring the largest value of each near one
 * (D. Ruiz, "A scaling algorithm to equilibrate both rows and columns norms in matrices", 2001),
 * so that siemens, ohms and plain numbers can be compared when pivots are chosen.
 */
export function equilibrate(
  matrix: SlotMatrix,
  samples: { re: Float64Array; im: Float64Array }[],
): { row: Float64Array; column: Float64Array } {
  const n = matrix.size;
  const row = new Float64Array(n).fill(1);
  const column = new Float64Array(n).fill(1);
  const size = Float64Array.from(matrix.rows, (_, slot) =>
    Math.max(...samples.map((s) => Math.hypot(s.re[slot], s.im[slot]))),
  );
  for (let pass = 0; pass < 6; pass++) {
    const rowMax = new Float64Array(n);
    const columnMax = new Float64Array(n);
    for (let slot = 0; slot < size.length; slot++) {
      const [r, c] = [matrix.rows[slot], matrix.columns[slot]];
      const v = size[slot] * row[r] * column[c];
      rowMax[r] = Math.max(rowMax[r], v);
      columnMax[c] = Math.max(columnMax[c], v);
    }
    for (let i = 0; i < n; i++) {
      if (rowMax[i] > 0) row[i] /= Math.sqrt(rowMax[i]);
      if (columnMax[i] > 0) column[i] /= Math.sqrt(columnMax[i]);
    }
  }
  return { row, column };
}
