import { solveReal } from '@/core/response/solve-real';
import type { Trial } from './trial';
import type { WantedLevels } from './wanted';

export interface ExactSolution {
  /** Every value; those that were not free are as they were. */
  values: Float64Array;
  /** Errors at the wanted frequencies, dB. */
  errors: Float64Array;
  /** d error / d ln(value) of the free values there. */
  slopes: Float64Array[];
}

const MOST_STEPS = 5;
/** A step that mends less than this part of what is left is the last. */
const WORTH = 0.02;
const SETTLED_DB = 1e-4;

/**
 * Values of some parts that bring a level nearest to the wanted one, in the sense of least squares,
 * by damped Gauss-Newton steps (K. Levenberg, "A method for the solution of certain non-linear
 * problems in least squares", Quart. Appl. Math. 2, 1944) on the true circuit: real op-amps, source
 * and load are made up for. The damping keeps what the response does not settle where it was.
 *
 * @param free places of the values that may change
 * @param even let the height of the level count for little: its shape matters
 */
export function solveExact(
  trial: Trial,
  wanted: WantedLevels,
  start: ArrayLike<number>,
  free: readonly number[],
  even: boolean,
): ExactSolution | undefined {
  let values = Float64Array.from(start);
  let errors = trial.softError(values, wanted);
  if (!errors) return undefined;
  let slopes = trial.slopes(wanted, free);
  let size = squares(errors, even);
  let damping = 1e-3;
  for (let step = 0; step < MOST_STEPS && free.length > 0; step++) {
    if (size < errors.length * SETTLED_DB ** 2) break;
    const moved = Float64Array.from(values);
    stepOf(errors, slopes, damping, even).forEach((by, i) => {
      moved[free[i]] *= Math.exp(Math.min(1, Math.max(-1, by)));
    });
    const next = trial.softError(moved, wanted);
    const nextSize = next ? squares(next, even) : Infinity;
    if (!next || !(nextSize < size)) {
      damping *= 30;
      if (damping > 1e3) break;
      continue;
    }
    const mended = 1 - nextSize / size;
    [values, errors, size] = [moved, next, nextSize];
    slopes = trial.slopes(wanted, free);
    damping = Math.max(1e-7, damping / 10);
    if (mended < WORTH) break;
  }
  return { values, errors, slopes };
}

const meanOf = (x: Float64Array) => x.reduce((a, b) => a + b, 0) / x.length;

/** What of its mean counts where only the shape is to be right: enough to keep it from drifting. */
const MEAN_COUNTS = 0.2;

function counted(x: Float64Array, even: boolean): Float64Array {
  if (!even) return x;
  const taken = meanOf(x) * (1 - MEAN_COUNTS);
  return x.map((y) => y - taken);
}

const squares = (errors: Float64Array, even: boolean): number =>
  counted(errors, even).reduce((sum, e) => sum + e * e, 0);

/** Changes of the logarithms of the free values. */
function stepOf(
  errors: Float64Array,
  slopes: readonly Float64Array[],
  damping: number,
  even: boolean,
): number[] {
  const columns = slopes.map((x) => counted(x, even));
  const left = counted(errors, even);
  return dampedStep(columns, left, damping);
}

/** A step of least squares: (J^T J + d) x = -J^T r; the damping d is a part of the heaviest square. */
export function dampedStep(
  columns: readonly ArrayLike<number>[],
  left: ArrayLike<number>,
  damping: number,
): number[] {
  const product = (a: ArrayLike<number>, b: ArrayLike<number>) => {
    let sum = 0;
    for (let k = 0; k < a.length; k++) sum += a[k] * b[k];
    return sum;
  };
  const rows = columns.map((a) => columns.map((b) => product(a, b)));
  const heaviest = Math.max(...rows.map((row, i) => row[i]), 1e-12);
  rows.forEach((row, i) => (row[i] += damping * heaviest));
  return solveReal(
    rows,
    columns.map((a) => -product(a, left)),
  );
}
