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
  const z = [...inside];
  const slack = rows.map((row, k) => limits[k] - dot(row, z));
  const dual = slack.map((s) => 1 / (m * s));
  for (let step = 0; step < MOST_STEPS; step++) {
    let gap = 0;
    for (let k = 0; k < m; k++) gap += slack[k] * dual[k];
    const residual = c.map((ci, i) => {
      let sum = ci;
      for (let k = 0; k < m; k++) sum += rows[k][i] * dual[k];
      return sum;
    });
    if (gap < tolerance && residual.every((r) => Math.abs(r) < 1e-6)) break;
    const aim = (CENTRING * gap) / m;
    // A^T (dual/slack) A dz = -residual + A^T (dual - aim/slack)
    const matrix = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    const right = residual.map((r) => -r);
    for (let k = 0; k < m; k++) {
      const row = rows[k];
      const weight = dual[k] / slack[k];
      const push = dual[k] - aim / slack[k];
      for (let i = 0; i < n; i++) {
        if (row[i] === 0) continue;
        right[i] += row[i] * push;
        const by = weight * row[i];
        for (let j = 0; j <= i; j++) matrix[i][j] += by * row[j];
      }
    }
    for (let i = 0; i < n; i++) {
      matrix[i][i] += 1e-12;
      for (let j = 0; j < i; j++) matrix[j][i] = matrix[i][j];
    }
    const dz = solveReal(matrix, right);
    let [farPrimal, farDual] = [1, 1];
    const ds = new Float64Array(m);
    const dd = new Float64Array(m);
    for (let k = 0; k < m; k++) {
      ds[k] = -dot(rows[k], dz);
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
  return z;
}

function dot(a: Float64Array, b: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < b.length; i++) sum += a[i] * b[i];
  return sum;
}
