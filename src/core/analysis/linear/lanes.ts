/** target = a b, complex, elementwise; the target may be one of the factors. */
export function product(
  tRe: Float64Array,
  tIm: Float64Array,
  t: number,
  aRe: Float64Array,
  aIm: Float64Array,
  a: number,
  bRe: Float64Array,
  bIm: Float64Array,
  b: number,
  count: number,
): void {
  for (let k = 0; k < count; k++) {
    const ar = aRe[a + k];
    const ai = aIm[a + k];
    const br = bRe[b + k];
    const bi = bIm[b + k];
    tRe[t + k] = ar * br - ai * bi;
    tIm[t + k] = ar * bi + ai * br;
  }
}

/** target -= l u, complex, elementwise over `count` neighbours: the engine's innermost loop. */
export function subtractProduct(
  tRe: Float64Array,
  tIm: Float64Array,
  t: number,
  lRe: Float64Array,
  lIm: Float64Array,
  l: number,
  uRe: Float64Array,
  uIm: Float64Array,
  u: number,
  count: number,
): void {
  for (let k = 0; k < count; k++) {
    const ar = lRe[l + k];
    const ai = lIm[l + k];
    const br = uRe[u + k];
    const bi = uIm[u + k];
    tRe[t + k] -= ar * br - ai * bi;
    tIm[t + k] -= ar * bi + ai * br;
  }
}
