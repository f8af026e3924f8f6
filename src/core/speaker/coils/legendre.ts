/** Places and weights for integrals from -1 to 1. */
export interface Rule {
  at: number[];
  weight: number[];
}

const rules = new Map<number, Rule>();

/**
 * Gauss-Legendre quadrature, by Newton's method on the polynomial
 * (M. Abramowitz, I. Stegun, "Handbook of Mathematical Functions", 1964, 25.4.29).
 */
export function legendre(n: number): Rule {
  let rule = rules.get(n);
  if (!rule) {
    rule = { at: [], weight: [] };
    for (let i = 0; i < n; i++) {
      let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
      let slope = 1;
      for (let step = 0; step < 8; step++) {
        let [before, p] = [1, x];
        for (let k = 2; k <= n; k++)
          [before, p] = [p, ((2 * k - 1) * x * p - (k - 1) * before) / k];
        slope = (n * (x * p - before)) / (x * x - 1);
        x -= p / slope;
      }
      rule.at.push(x);
      rule.weight.push(2 / ((1 - x * x) * slope * slope));
    }
    rules.set(n, rule);
  }
  return rule;
}
