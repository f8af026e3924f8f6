import { solveReal } from '@/core/response/solve-real';

/** Residuals at a point, and their slopes: one column a variable. */
export interface Linearised {
  residuals: Float64Array;
  columns: Float64Array[];
}

export interface LeastSquares {
  /** Residuals and slopes at `x`; undefined where there are none, as outside the limits. */
  at(x: Float64Array): Linearised | undefined;
  /** Residuals alone, where they are had for less. */
  residuals?(x: Float64Array): Float64Array | undefined;
  lower: Float64Array;
  upper: Float64Array;
  /** Asked between steps; true stops where the search stands. */
  stop?: () => boolean;
  mostSteps?: number;
}

export interface Solution {
  x: Float64Array;
  /** Sum of the squares of the residuals. */
  size: number;
}

const MOST_STEPS = 60;
/** No step changes a logarithm by more. */
const FARTHEST = 0.7;
/** Steps that mend less than this part of what is left are counted, and so many of them end it. */
const WORTH = 1e-4;
const PATIENCE = 3;

/**
 * Least squares within limits by damped Gauss-Newton steps, the damping in the measure of each
 * variable's own slope (D. W. Marquardt, "An Algorithm for Least-Squares Estimation of Nonlinear
 * Parameters", J. SIAM 11, 1963); a variable at a limit that it is pushed against stays there.
 */
export function leastSquares(problem: LeastSquares, start: ArrayLike<number>): Solution {
  const { lower, upper } = problem;
  const inside = (v: number, i: number) => Math.min(upper[i], Math.max(lower[i], v));
  let x: Float64Array = Float64Array.from(start, inside);
  let now = problem.at(x);
  if (!now) return { x, size: Infinity };
  let size = squares(now.residuals);
  let damping = 1e-2;
  let idle = 0;
  for (let step = 0; step < (problem.mostSteps ?? MOST_STEPS) && size > 0; step++) {
    if (problem.stop?.()) break;
    const moved = nextPoint(x, now, damping, problem);
    const residuals = problem.residuals ? problem.residuals(moved) : undefined;
    const next = problem.residuals ? undefined : problem.at(moved);
    const found = residuals ?? next?.residuals;
    const foundSize = found ? squares(found) : Infinity;
    if (!(foundSize < size)) {
      damping *= 6;
      if (damping > 1e6) break;
      continue;
    }
    const mended = 1 - foundSize / size;
    x = moved;
    now = next ?? problem.at(x)!;
    size = foundSize;
    damping = Math.max(1e-9, damping / 5);
    idle = mended < WORTH ? idle + 1 : 0;
    if (idle >= PATIENCE) break;
  }
  return { x, size };
}

function nextPoint(
  x: Float64Array,
  { residuals, columns }: Linearised,
  damping: number,
  { lower, upper }: LeastSquares,
): Float64Array {
  const slope = columns.map((c) => product(c, residuals));
  const free = [...x.keys()].filter(
    (i) => !((x[i] <= lower[i] && slope[i] > 0) || (x[i] >= upper[i] && slope[i] < 0)),
  );
  const rows = free.map((i) => free.map((j) => product(columns[i], columns[j])));
  const heaviest = Math.max(1e-300, ...rows.map((row, i) => row[i]));
  rows.forEach((row, i) => (row[i] += damping * Math.max(row[i], 1e-6 * heaviest)));
  const step = solveReal(
    rows,
    free.map((i) => -slope[i]),
  );
  const moved = Float64Array.from(x);
  free.forEach((i, k) => {
    const by = Math.min(FARTHEST, Math.max(-FARTHEST, step[k]));
    moved[i] = Math.min(upper[i], Math.max(lower[i], x[i] + by));
  });
  return moved;
}

function squares(r: ArrayLike<number>): number {
  let sum = 0;
  for (let k = 0; k < r.length; k++) sum += r[k] * r[k];
  return sum;
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k] * b[k];
  return sum;
}
