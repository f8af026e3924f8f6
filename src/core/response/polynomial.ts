import { minus, ONE, over, plus, scaled, times, type Complex } from '@/core/numeric/complex';

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
  const z = Array.from({ length: n }, (_, k) => ({
    re: radius * Math.cos((2 * Math.PI * k) / n + 0.7),
    im: radius * Math.sin((2 * Math.PI * k) / n + 0.7),
  }));
  for (let pass = 0; pass < 300; pass++) {
    let moved = 0;
    for (let k = 0; k < n; k++) {
      let [p, dp]: Complex[] = [
        { re: rest[n], im: 0 },
        { re: 0, im: 0 },
      ];
      for (let i = n - 1; i >= 0; i--) {
        dp = plus(times(dp, z[k]), p);
        p = plus(times(p, z[k]), { re: rest[i], im: 0 });
      }
      if (p.re === 0 && p.im === 0) continue;
      const newton = over(p, dp);
      let repel: Complex = { re: 0, im: 0 };
      for (let j = 0; j < n; j++) if (j !== k) repel = plus(repel, over(ONE, minus(z[k], z[j])));
      const step = over(newton, minus(ONE, times(newton, repel)));
      z[k] = minus(z[k], step);
      moved = Math.max(moved, Math.hypot(step.re, step.im) / radius);
    }
    if (moved < 1e-15) break;
  }
  return [...Array.from({ length: zeros }, () => ({ re: 0, im: 0 })), ...z];
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
