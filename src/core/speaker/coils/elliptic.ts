/** Complete elliptic integrals of the first and second kind for the parameter m = k^2, 0 <= m < 1. */
export interface Elliptic {
  first: number;
  second: number;
}

/**
 * By the arithmetic-geometric mean (M. Abramowitz, I. Stegun, "Handbook of Mathematical Functions",
 * 1964, 17.6).
 */
export function elliptic(m: number): Elliptic {
  let a = 1;
  let b = Math.sqrt(1 - m);
  let c = Math.sqrt(m);
  let power = 0.5;
  let sum = power * c * c;
  // The mean doubles its digits with every step.
  for (let i = 0; i < 40 && Math.abs(c) > 1e-16; i++) {
    const mean = (a + b) / 2;
    c = (a - b) / 2;
    b = Math.sqrt(a * b);
    a = mean;
    power *= 2;
    sum += power * c * c;
  }
  const first = Math.PI / (2 * a);
  return { first, second: first * (1 - sum) };
}
