import { Cholesky } from '@/core/numeric/cholesky';
import { dot, doubting, PLAIN, squares, type Belief } from './belief';
import type { Prediction, SlopedCurve } from './prediction';
import { FARTHEST } from './view-prediction';

/** The likeliest values under a supposition, and how likely the take is if it holds. */
export interface Likely {
  /** By movable, the logarithm of how far it is off. */
  x: Float64Array;
  /** Logarithm of the likelihood of the take, values averaged over; comparable within one take. */
  evidence: number;
  /** Sum of the squares of what is left, in units of the noise. */
  left: number;
  /** Of each of x, the variance that take and supposition leave it. */
  variances: Float64Array;
}

const MOST_STEPS = 14;
/** Steps that gain less than this in the exponent are the last. */
const WORTH = 1e-3;
/** Where a point is farther off than this, it is doubted at first. */
const FAR = 40;
const BELIEVED = 10;

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
): Likely | undefined {
  let from = start;
  const first = prediction.sloped(from);
  if (first?.values.some((v) => Math.abs(v) > FAR)) {
    const soft = prediction.soft.sloped(from);
    const doubt = doubting(first.gains, BELIEVED);
    if (soft) from = searched(prediction.soft, sds, { x: from, curve: soft }, doubt).x;
  }
  const curve = from === start ? first : prediction.sloped(from);
  if (!curve) return undefined;
  const found = searched(prediction, sds, { x: from, curve }, PLAIN);
  return about(found.x, found.curve, sds);
}

interface Place {
  x: Float64Array;
  curve: SlopedCurve;
}

/** The place where what is believed of the misfit, and of values far from nought, costs least. */
function searched(
  prediction: Prediction,
  sds: ArrayLike<number>,
  { x, curve }: Place,
  belief: Belief,
): Place {
  let cost = belief.cost(curve.values) + heldBack(x, sds);
  let damping = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const moved = stepFrom(x, belief.weighed(curve), sds, damping);
    const misfit = moved && prediction.misfit(moved);
    const found = misfit ? belief.cost(misfit) + heldBack(moved, sds) : Infinity;
    if (!moved || !(found < cost)) {
      if (moved && Math.abs(found - cost) < WORTH) break;
      damping = damping === 0 ? 1e-2 : damping * 8;
      if (damping > 1e6) break;
      continue;
    }
    const next = prediction.sloped(moved);
    if (!next) break;
    const gained = cost - found;
    [x, curve, cost] = [moved, next, found];
    damping = damping < 1e-3 ? 0 : damping / 8;
    if (gained < WORTH) break;
  }
  return { x, curve };
}

/** Of what is left, as a part of its points, what noise alone leaves: no other place would explain more. */
const FITS = 1.2;

/** The likeliest of what several places lead to; once a place explains the take, no further one is tried. */
export function likeliestFrom(
  prediction: Prediction,
  sds: ArrayLike<number>,
  starts: readonly Float64Array[],
): Likely | undefined {
  let most: Likely | undefined;
  for (const start of starts) {
    const likely = likeliest(prediction, sds, start);
    if (likely && !(most && most.evidence >= likely.evidence)) most = likely;
    if (most && most.left <= FITS * prediction.points) break;
  }
  return most;
}

/** Laplace's approximation about a point. */
function about(x: Float64Array, now: SlopedCurve, sds: ArrayLike<number>): Likely | undefined {
  const factors = Cholesky.of(hessianOf(now, sds), x.length);
  if (!factors) return undefined;
  const left = squares(now.values);
  const inverse = factors.inverse();
  return {
    x,
    left,
    evidence: -(left + heldBack(x, sds) + factors.logDet) / 2,
    variances: x.map((_, i) => sds[i] ** 2 * inverse[i * (x.length + 1)]),
  };
}

function stepFrom(
  x: Float64Array,
  now: Pick<SlopedCurve, 'values' | 'columns'>,
  sds: ArrayLike<number>,
  damping: number,
): Float64Array | undefined {
  const count = x.length;
  const hessian = hessianOf(now, sds);
  for (let i = 0; i < count; i++) hessian[i * (count + 1)] *= 1 + damping;
  const step = Cholesky.of(hessian, count)?.solve(
    Float64Array.from(now.columns, (column, i) => sds[i] * dot(column, now.values) - x[i] / sds[i]),
  );
  return step && x.map((v, i) => Math.min(FARTHEST, Math.max(-FARTHEST, v + sds[i] * step[i])));
}

/** 1 + S J'J S, S the standard deviations: what is known of values counted in these, before and by the take. */
function hessianOf(
  { columns }: Pick<SlopedCurve, 'columns'>,
  sds: ArrayLike<number>,
): Float64Array {
  const count = columns.length;
  const hessian = new Float64Array(count * count);
  for (let i = 0; i < count; i++) {
    for (let j = 0; j <= i; j++) {
      const sum = sds[i] * sds[j] * dot(columns[i], columns[j]);
      hessian[i * count + j] = sum;
      hessian[j * count + i] = sum;
    }
    hessian[i * (count + 1)] += 1;
  }
  return hessian;
}

function heldBack(x: Float64Array, sds: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += (x[i] / sds[i]) ** 2;
  return sum;
}
