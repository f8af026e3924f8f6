import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { FARTHEST, type Prediction, type SlopedCurve } from './prediction';

/** The likeliest values under a supposition, and how likely the take is if it holds. */
export interface Likely {
  /** By movable, the logarithm of how far it is off. */
  x: Float64Array;
  /** Logarithm of the likelihood of the take, values averaged over; comparable within one take. */
  evidence: number;
  /** Sum of the squares of what is left, in units of the noise. */
  left: number;
  /** The covariance of x. */
  covariance: Matrix;
}

const MOST_STEPS = 12;
/** Steps that gain less than this in the exponent are the last. */
const WORTH = 1e-3;

/**
 * The likeliest values, where each is held near nought by a standard deviation: damped Gauss-Newton
 * steps on the take and on what is known beforehand together, and Laplace's approximation about what
 * they find (D. J. C. MacKay, "Bayesian Interpolation", Neural Computation 4, 1992, section 4).
 *
 * @param sds by movable
 * @returns undefined where the circuit cannot be solved
 */
export function likeliest(
  prediction: Prediction,
  sds: ArrayLike<number>,
  start: Float64Array,
  mostSteps = MOST_STEPS,
): Likely | undefined {
  let x = start;
  let now = prediction.sloped(x);
  if (!now) return undefined;
  let cost = squares(now.values) + heldBack(x, sds);
  let damping = 0;
  for (let step = 0; step < mostSteps; step++) {
    const moved = stepFrom(x, now, sds, damping);
    const misfit = moved && prediction.misfit(moved);
    const found = misfit ? squares(misfit) + heldBack(moved, sds) : Infinity;
    if (!moved || !(found < cost)) {
      if (moved && Math.abs(found - cost) < WORTH) break;
      damping = damping === 0 ? 1e-2 : damping * 8;
      if (damping > 1e6) break;
      continue;
    }
    const gained = cost - found;
    [x, cost] = [moved, found];
    const next = prediction.sloped(x);
    if (!next) return undefined;
    now = next;
    damping = damping < 1e-3 ? 0 : damping / 8;
    if (gained < WORTH) break;
  }
  return about(x, now, sds);
}

/** The one that makes the take most likely. */
export function likeliestOf(found: readonly (Likely | undefined)[]): Likely | undefined {
  let most: Likely | undefined;
  for (const likely of found)
    if (likely && !(most && most.evidence >= likely.evidence)) most = likely;
  return most;
}

/** Laplace's approximation about a point. */
function about(x: Float64Array, now: SlopedCurve, sds: ArrayLike<number>): Likely | undefined {
  const hessian = hessianOf(now, sds);
  const factors = new CholeskyDecomposition(hessian);
  if (!factors.isPositiveDefinite()) return undefined;
  const lower = factors.lowerTriangularMatrix;
  let logDet = 0;
  for (let i = 0; i < x.length; i++) logDet += 2 * Math.log(lower.get(i, i));
  const left = squares(now.values);
  const scale = Matrix.diag(Array.from(sds));
  return {
    x,
    left,
    evidence: -(left + heldBack(x, sds) + logDet) / 2,
    covariance:
      x.length > 0 ? scale.mmul(factors.solve(Matrix.identity(x.length))).mmul(scale) : hessian,
  };
}

function stepFrom(
  x: Float64Array,
  now: SlopedCurve,
  sds: ArrayLike<number>,
  damping: number,
): Float64Array | undefined {
  const hessian = hessianOf(now, sds);
  for (let i = 0; i < x.length; i++) hessian.set(i, i, hessian.get(i, i) * (1 + damping));
  const factors = new CholeskyDecomposition(hessian);
  if (!factors.isPositiveDefinite()) return undefined;
  const rhs = Matrix.columnVector(
    now.columns.map((column, i) => sds[i] * dot(column, now.values) - x[i] / sds[i]),
  );
  const step = factors.solve(rhs);
  return x.map((v, i) => Math.min(FARTHEST, Math.max(-FARTHEST, v + sds[i] * step.get(i, 0))));
}

/** 1 + S J'J S, S the standard deviations: what is known of values counted in these, before and by the take. */
export function hessianOf({ columns }: SlopedCurve, sds: ArrayLike<number>): Matrix {
  const count = columns.length;
  const hessian = Matrix.zeros(count, count);
  for (let i = 0; i < count; i++)
    for (let j = i; j < count; j++) {
      const sum = sds[i] * sds[j] * dot(columns[i], columns[j]) + (i === j ? 1 : 0);
      hessian.set(i, j, sum);
      hessian.set(j, i, sum);
    }
  return hessian;
}

function heldBack(x: Float64Array, sds: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += (x[i] / sds[i]) ** 2;
  return sum;
}

export function squares(values: Float64Array): number {
  let sum = 0;
  for (const v of values) sum += v * v;
  return sum;
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k] * b[k];
  return sum;
}
