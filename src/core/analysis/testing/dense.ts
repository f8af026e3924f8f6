/**
 * Dense complex solve by row-scaled partial pivoting with one step of iterative refinement
 * (G. H. Golub, C. F. Van Loan, "Matrix Computations", 4th ed., sections 3.4 and 3.5).
 *
 * For tests: what partial pivoting gives.
 *
 * @param re, im row-major n x n, left unchanged
 * @param bRe, bIm right-hand side, n, left unchanged
 * @returns the solution, or the column without a pivot
 */
export function solveDense(
  n: number,
  re: Float64Array,
  im: Float64Array,
  bRe: Float64Array,
  bIm: Float64Array,
): { re: Float64Array; im: Float64Array } | { singularColumn: number } {
  const lu = { re: Float64Array.from(re), im: Float64Array.from(im) };
  const order = Int32Array.from({ length: n }, (_, i) => i);
  const rowSize = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++)
      rowSize[i] = Math.max(rowSize[i], Math.hypot(re[i * n + j], im[i * n + j]));
  }
  for (let k = 0; k < n; k++) {
    let best = -1;
    let bestSize = 1e-14; // rows are compared relative to their own largest entry
    for (let i = k; i < n; i++) {
      const size =
        Math.hypot(lu.re[order[i] * n + k], lu.im[order[i] * n + k]) / (rowSize[order[i]] || 1);
      if (size > bestSize) [best, bestSize] = [i, size];
    }
    if (best < 0) return { singularColumn: k };
    [order[k], order[best]] = [order[best], order[k]];
    const p = order[k] * n;
    const norm = lu.re[p + k] ** 2 + lu.im[p + k] ** 2;
    for (let i = k + 1; i < n; i++) {
      const r = order[i] * n;
      const [ar, ai] = [lu.re[r + k], lu.im[r + k]];
      if (ar === 0 && ai === 0) continue;
      const lr = (ar * lu.re[p + k] + ai * lu.im[p + k]) / norm;
      const li = (ai * lu.re[p + k] - ar * lu.im[p + k]) / norm;
      lu.re[r + k] = lr;
      lu.im[r + k] = li;
      for (let j = k + 1; j < n; j++) {
        lu.re[r + j] -= lr * lu.re[p + j] - li * lu.im[p + j];
        lu.im[r + j] -= lr * lu.im[p + j] + li * lu.re[p + j];
      }
    }
  }
  const x = { re: new Float64Array(n), im: new Float64Array(n) };
  const residual = { re: Float64Array.from(bRe), im: Float64Array.from(bIm) };
  for (let pass = 0; pass < 2; pass++) {
    const d = substitute(n, lu, order, residual);
    for (let i = 0; i < n; i++) {
      x.re[i] += d.re[i];
      x.im[i] += d.im[i];
    }
    for (let i = 0; i < n; i++) {
      let [sr, si] = [bRe[i], bIm[i]];
      for (let j = 0; j < n; j++) {
        sr -= re[i * n + j] * x.re[j] - im[i * n + j] * x.im[j];
        si -= re[i * n + j] * x.im[j] + im[i * n + j] * x.re[j];
      }
      residual.re[i] = sr;
      residual.im[i] = si;
    }
  }
  return x;
}

interface ComplexArray {
  re: Float64Array;
  im: Float64Array;
}

function substitute(n: number, lu: ComplexArray, order: Int32Array, b: ComplexArray): ComplexArray {
  const x = { re: new Float64Array(n), im: new Float64Array(n) };
  for (let i = 0; i < n; i++) {
    const r = order[i] * n;
    let [sr, si] = [b.re[order[i]], b.im[order[i]]];
    for (let j = 0; j < i; j++) {
      sr -= lu.re[r + j] * x.re[j] - lu.im[r + j] * x.im[j];
      si -= lu.re[r + j] * x.im[j] + lu.im[r + j] * x.re[j];
    }
    x.re[i] = sr;
    x.im[i] = si;
  }
  for (let i = n - 1; i >= 0; i--) {
    const r = order[i] * n;
    let [sr, si] = [x.re[i], x.im[i]];
    for (let j = i + 1; j < n; j++) {
      sr -= lu.re[r + j] * x.re[j] - lu.im[r + j] * x.im[j];
      si -= lu.re[r + j] * x.im[j] + lu.im[r + j] * x.re[j];
    }
    const norm = lu.re[r + i] ** 2 + lu.im[r + i] ** 2;
    x.re[i] = (sr * lu.re[r + i] + si * lu.im[r + i]) / norm;
    x.im[i] = (si * lu.re[r + i] - sr * lu.im[r + i]) / norm;
  }
  return x;
}
