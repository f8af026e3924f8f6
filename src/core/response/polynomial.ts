import { ONE, plus, scaled, times, type Complex } from '@/core/numeric/complex';

/** A real polynomial: coefficients rising, `p[k]` belongs to x^k. */
export type Polynomial = readonly number[];

export function multiply(a: Polynomial, b: Polynomial): number[] {
  const product = new Array<number>(a.length + b.length - 1).fill(0);
  a.forEach((x, i) => b.forEach((y, j) => (product[i + j] += x * y)));
  return product;
}

export function add(a: Polynomial, b: Polynomial, factor = 1): number[] {
  return Array.from(
    { length: Math.max(a.length, b.length) },
    (_, k) => (a[k] ?? 0) + factor * (b[k] ?? 0),
  );
}

/** p(z) at a complex point. */
export function evaluate(p: Polynomial, z: Complex): Complex {
  let value: Complex = { re: 0, im: 0 };
  for (let k = p.length - 1; k >= 0; k--) value = plus(times(value, z), { re: p[k], im: 0 });
  return value;
}

/** Below this part of the radius, roots that move no less than in the pass before move by rounding. */
const BY_ROUNDING = 1e-12;

/** All roots of a polynomial, found together (O. Aberth, Math. Comp. 27, 1973). */
export function polynomialRoots(coefficients: Polynomial): Complex[] {
  let top = coefficients.length - 1;
  while (top > 0 && coefficients[top] === 0) top--;
  const c = coefficients.slice(0, top + 1);
  // Roots at zero are split off: the radius of the starting circle would vanish.
  const zeros = c.findIndex((x) => x !== 0);
  const rest = c.slice(Math.max(0, zeros));
  const n = rest.length - 1;
  if (n < 1) return Array.from({ length: Math.max(0, zeros) }, () => ({ re: 0, im: 0 }));
  const radius = Math.abs(rest[0] / rest[n]) ** (1 / n);
  const angles = Array.from({ length: n }, (_, k) => (2 * Math.PI * k) / n + 0.7);
  const re = Float64Array.from(angles, (a) => radius * Math.cos(a));
  const im = Float64Array.from(angles, (a) => radius * Math.sin(a));
  let before = Infinity;
  for (let pass = 0; pass < 300; pass++) {
    let moved = 0;
    for (let k = 0; k < n; k++) moved = Math.max(moved, moveRoot(rest, re, im, k) / radius);
    if (moved < 1e-15 || (moved < BY_ROUNDING && moved >= before)) break;
    before = moved;
  }
  return [
    ...Array.from({ length: zeros }, () => ({ re: 0, im: 0 })),
    ...Array.from(re, (x, k) => ({ re: x, im: im[k] })),
  ];
}

/**
 * One step of root k: Newton's, with the pull of the other roots taken away. Complex numbers are
 * written out in their two parts: thousands of these steps are taken for one ladder.
 *
 * @returns how far it moved
 */
function moveRoot(p: Polynomial, re: Float64Array, im: Float64Array, k: number): number {
  const n = p.length - 1;
  const [x, y] = [re[k], im[k]];
  // p(z) and p'(z) by Horner's rule.
  let [pr, pi, dr, di] = [p[n], 0, 0, 0];
  for (let i = n - 1; i >= 0; i--) {
    const slopeRe = dr * x - di * y + pr;
    di = dr * y + di * x + pi;
    dr = slopeRe;
    const valueRe = pr * x - pi * y + p[i];
    pi = pr * y + pi * x;
    pr = valueRe;
  }
  if (pr === 0 && pi === 0) return 0;
  const slope = dr * dr + di * di;
  const newtonRe = (pr * dr + pi * di) / slope;
  const newtonIm = (pi * dr - pr * di) / slope;
  let [pullRe, pullIm] = [0, 0];
  for (let j = 0; j < n; j++) {
    if (j === k) continue;
    const [ar, ai] = [x - re[j], y - im[j]];
    const apart = ar * ar + ai * ai;
    pullRe += ar / apart;
    pullIm -= ai / apart;
  }
  const ofRe = 1 - (newtonRe * pullRe - newtonIm * pullIm);
  const ofIm = -(newtonRe * pullIm + newtonIm * pullRe);
  const of = ofRe * ofRe + ofIm * ofIm;
  const stepRe = (newtonRe * ofRe + newtonIm * ofIm) / of;
  const stepIm = (newtonIm * ofRe - newtonRe * ofIm) / of;
  re[k] -= stepRe;
  im[k] -= stepIm;
  return Math.hypot(stepRe, stepIm);
}

/** The real polynomial with the given roots, which come in conjugate pairs; leading coefficient 1. */
export function fromRoots(roots: readonly Complex[]): number[] {
  let p: Complex[] = [ONE];
  for (const root of roots) {
    const next: Complex[] = [...p.map((c) => scaled(times(c, root), -1)), { re: 0, im: 0 }];
    p.forEach((c, k) => (next[k + 1] = plus(next[k + 1], c)));
    p = next;
  }
  return p.map((c) => c.re);
}
