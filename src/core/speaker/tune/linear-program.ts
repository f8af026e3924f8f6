import { ReedError } from '@/core/errors';
import { solveReal } from '@/core/response/solve-real';

const MOST_STEPS = 40;
/** Part of the way to the nearest limit that a step goes. */
const SHORT_OF = 0.95;
const CENTRING = 0.15;

/**
 * Least c.z under A z <= b, from a point that lies strictly inside, by a primal-dual interior-point
 * method (S. J. Wright, "Primal-Dual Interior-Point Methods", 1997, chapters 1 and 5): few variables,
 * many limits.
 *
 * @param rows of A
 * @param inside where every row is below its limit
 * @param tolerance of c.z
 */
export function linearProgram(
  c: readonly number[],
  rows: readonly Float64Array[],
  limits: readonly number[],
  inside: readonly number[],
  tolerance: number,
): number[] {
  const n = c.length;
  const m = rows.length;
  // All rows one after the other: the loops below run over them thousands of times.
  const a = new Float64Array(m * n);
  rows.forEach((row, k) => a.set(row, k * n));
  const z = Float64Array.from(inside);
  const slack = new Float64Array(m);
  for (let k = 0; k < m; k++) slack[k] = limits[k] - dot(a, k * n, z);
  const dual = slack.map((s) => 1 / (m * s));
  const [ds, dd] = [new Float64Array(m), new Float64Array(m)];
  const matrix = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let step = 0; step < MOST_STEPS; step++) {
    let gap = 0;
    for (let k = 0; k < m; k++) gap += slack[k] * dual[k];
    const right = c.map((ci) => -ci);
    for (const row of matrix) row.fill(0);
    const aim = (CENTRING * gap) / m;
    // A^T (dual/slack) A dz = -(c + A^T dual) + A^T (dual - aim/slack)
    let worst = 0;
    const residual = Float64Array.from(c);
    for (let k = 0; k < m; k++) {
      const at = k * n;
      const weight = dual[k] / slack[k];
      const push = -aim / slack[k];
      for (let i = 0; i < n; i++) {
        const aki = a[at + i];
        if (aki === 0) continue;
        residual[i] += aki * dual[k];
        right[i] += aki * push;
        const by = weight * aki;
        const row = matrix[i];
        for (let j = 0; j <= i; j++) row[j] += by * a[at + j];
      }
    }
    for (const r of residual) worst = Math.max(worst, Math.abs(r));
    if (gap < tolerance && worst < 1e-6) break;
    for (let i = 0; i < n; i++) {
      matrix[i][i] += 1e-12;
      for (let j = 0; j < i; j++) matrix[j][i] = matrix[i][j];
    }
    const dz = stepOf(matrix, right);
    // So near to its limits that no further step can be told: what was reached lies inside.
    if (!dz) break;
    let [farPrimal, farDual] = [1, 1];
    for (let k = 0; k < m; k++) {
      ds[k] = -dot(a, k * n, dz);
      dd[k] = (aim - dual[k] * ds[k]) / slack[k] - dual[k];
      if (ds[k] < 0) farPrimal = Math.min(farPrimal, (-SHORT_OF * slack[k]) / ds[k]);
      if (dd[k] < 0) farDual = Math.min(farDual, (-SHORT_OF * dual[k]) / dd[k]);
    }
    for (let i = 0; i < n; i++) z[i] += farPrimal * dz[i];
    for (let k = 0; k < m; k++) {
      slack[k] += farPrimal * ds[k];
      dual[k] += farDual * dd[k];
    }
  }
  return [...z];
}

/** The next step; none where its equations cannot be solved any more. */
function stepOf(matrix: number[][], right: number[]): Float64Array | undefined {
  try {
    return Float64Array.from(solveReal(matrix, right));
  } catch (error) {
    if (error instanceof ReedError && error.code === 'singular') return undefined;
    throw error;
  }
}

function dot(a: Float64Array, at: number, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < b.length; i++) sum += a[at + i] * b[i];
  return sum;
}
