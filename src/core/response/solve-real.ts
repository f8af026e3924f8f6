import { ReedError } from '@/core/errors';

/** Solve a small dense real system by elimination with row pivoting; rows are not kept. */
export function solveReal(rows: number[][], rhs: number[]): number[] {
  const n = rows.length;
  const a = rows.map((row, i) => [...row, rhs[i]]);
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i][k]) > Math.abs(a[best][k])) best = i;
    [a[k], a[best]] = [a[best], a[k]];
    if (a[k][k] === 0)
      throw new ReedError('singular', 'The equations of this design have no unique solution.');
    for (let i = k + 1; i < n; i++) {
      const factor = a[i][k] / a[k][k];
      if (factor === 0) continue;
      for (let j = k; j <= n; j++) a[i][j] -= factor * a[k][j];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = a[k][n];
    for (let j = k + 1; j < n; j++) sum -= a[k][j] * x[j];
    x[k] = sum / a[k][k];
  }
  return x;
}
