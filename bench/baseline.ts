/**
 * The baseline the engine is measured against: dense complex LU with partial pivoting, written the
 * plain way over preallocated arrays. (A compiled LAPACK does the same arithmetic two to four times
 * faster; docs/decisions gives figures against one.)
 */
export class DenseComplexLu {
  private readonly re: Float64Array;
  private readonly im: Float64Array;

  constructor(private readonly n: number) {
    this.re = new Float64Array(n * n);
    this.im = new Float64Array(n * n);
  }

  /** Solve (G + j w C) x = b in place of `xRe`, `xIm`, which hold b. */
  solve(g: Float64Array, c: Float64Array, w: number, xRe: Float64Array, xIm: Float64Array): void {
    const { n, re, im } = this;
    for (let i = 0; i < n * n; i++) {
      re[i] = g[i];
      im[i] = c[i] * w;
    }
    for (let k = 0; k < n; k++) {
      let pivot = k;
      let best = 0;
      for (let i = k; i < n; i++) {
        const size = Math.abs(re[i * n + k]) + Math.abs(im[i * n + k]);
        if (size > best) {
          best = size;
          pivot = i;
        }
      }
      if (pivot !== k) {
        for (let j = 0; j < n; j++) {
          swap(re, k * n + j, pivot * n + j);
          swap(im, k * n + j, pivot * n + j);
        }
        swap(xRe, k, pivot);
        swap(xIm, k, pivot);
      }
      const norm = re[k * n + k] ** 2 + im[k * n + k] ** 2;
      for (let i = k + 1; i < n; i++) {
        const ar = re[i * n + k];
        const ai = im[i * n + k];
        const lr = (ar * re[k * n + k] + ai * im[k * n + k]) / norm;
        const li = (ai * re[k * n + k] - ar * im[k * n + k]) / norm;
        for (let j = k + 1; j < n; j++) {
          re[i * n + j] -= lr * re[k * n + j] - li * im[k * n + j];
          im[i * n + j] -= lr * im[k * n + j] + li * re[k * n + j];
        }
        xRe[i] -= lr * xRe[k] - li * xIm[k];
        xIm[i] -= lr * xIm[k] + li * xRe[k];
      }
    }
    for (let i = n - 1; i >= 0; i--) {
      let sr = xRe[i];
      let si = xIm[i];
      for (let j = i + 1; j < n; j++) {
        sr -= re[i * n + j] * xRe[j] - im[i * n + j] * xIm[j];
        si -= re[i * n + j] * xIm[j] + im[i * n + j] * xRe[j];
      }
      const norm = re[i * n + i] ** 2 + im[i * n + i] ** 2;
      xRe[i] = (sr * re[i * n + i] + si * im[i * n + i]) / norm;
      xIm[i] = (si * re[i * n + i] - sr * im[i * n + i]) / norm;
    }
  }
}

function swap(a: Float64Array, i: number, j: number): void {
  const t = a[i];
  a[i] = a[j];
  a[j] = t;
}
