import { ReedError } from '@/core/errors';
import { findZero } from './root';

/**
 * One factor of a filter in normalised form (edge at 1 rad/s): a pair of poles with radius `w0` and
 * quality factor `q`, or a single real pole at `-w0`.
 */
export interface PoleSection {
  w0: number;
  q?: number;
}

export interface Prototype {
  sections: PoleSection[];
  /** Level at d.c. relative to the top of the pass band: below 1 for even-order Chebyshev. */
  dcGain: number;
}

export const SHAPES = ['butterworth', 'chebyshev', 'bessel', 'critically-damped'] as const;
export type Shape = (typeof SHAPES)[number];

export const EDGES = ['half-power', 'ripple', 'half-voltage', 'asymptote'] as const;
/** What happens at the edge frequency: -3.01 dB, leaving the ripple, -6.02 dB, or the asymptotes meeting. */
export type Edge = (typeof EDGES)[number];

export interface ShapeOptions {
  shape: Shape;
  order: number;
  edge?: Edge;
  /** Pass-band ripple of a Chebyshev shape, dB. Default 0.5 dB. */
  rippleDb?: number;
}

const HALF_POWER = Math.SQRT1_2;

/**
 * All-pole low-pass prototype with its edge at 1 rad/s in the asked convention.
 *
 * Levels are relative to the top of the pass band (for an even-order Chebyshev shape the ripple's
 * crest, not its d.c. level).
 *
 * @throws ReedError `design` for an order or ripple outside what the shape is defined for
 */
export function lowPassPrototype({
  shape,
  order,
  edge = 'half-power',
  rippleDb = 0.5,
}: ShapeOptions): Prototype {
  if (!Number.isInteger(order) || order < 1 || order > 10) {
    throw new ReedError(
      'design',
      `Order ${order} is out of reach: ask for a whole order from 1 to 10.`,
    );
  }
  if (edge === 'ripple' && shape !== 'chebyshev') {
    throw new ReedError(
      'design',
      `Only a rippled shape has a ripple edge: use the -3 dB edge with the ${shape} shape.`,
    );
  }
  const prototype =
    shape === 'butterworth'
      ? butterworth(order)
      : shape === 'chebyshev'
        ? chebyshev(order, rippleDb)
        : shape === 'bessel'
          ? bessel(order)
          : criticallyDamped(order);
  return withEdge(prototype, edge, rippleDb);
}

/** S. Butterworth, "On the Theory of Filter Amplifiers", Wireless Engineer 7, 1930: poles evenly on the unit circle. */
function butterworth(order: number): Prototype {
  const sections = pairs(order).map((k) => ({
    w0: 1,
    q: 1 / (2 * Math.sin(((2 * k + 1) * Math.PI) / (2 * order))),
  }));
  return { sections: order % 2 === 1 ? [{ w0: 1 }, ...sections] : sections, dcGain: 1 };
}

/** Poles on an ellipse (A. I. Zverev, "Handbook of Filter Synthesis", 1967, section 3.5); the ripple ends at 1 rad/s. */
function chebyshev(order: number, rippleDb: number): Prototype {
  if (!(rippleDb > 0) || rippleDb > 12)
    throw new ReedError(
      'design',
      `A ripple of ${rippleDb} dB is out of reach: ask for more than 0 and at most 12 dB.`,
    );
  const epsilon = Math.sqrt(10 ** (rippleDb / 10) - 1);
  const a = Math.asinh(1 / epsilon) / order;
  const sections = pairs(order).map((k) => {
    const theta = ((2 * k + 1) * Math.PI) / (2 * order);
    return fromPole(Math.sinh(a) * Math.sin(theta), Math.cosh(a) * Math.cos(theta));
  });
  return order % 2 === 1
    ? { sections: [{ w0: Math.sinh(a) }, ...sections], dcGain: 1 }
    : { sections, dcGain: 1 / Math.sqrt(1 + epsilon ** 2) };
}

/**
 * Maximally flat delay (W. E. Thomson, "Delay Networks having Maximally Flat Frequency
 * Characteristics", Proc. IEE 96, 1949): roots of the reverse Bessel polynomial, here for a delay
 * of one second, found all at once by Aberth's iteration.
 */
function bessel(order: number): Prototype {
  // theta_n(s) = sum_k  a_k s^k,  a_k = (2n - k)! / (2^(n-k) k! (n-k)!), from a_n = 1 downwards.
  const coefficients = new Array<number>(order + 1).fill(1);
  for (let k = order - 1; k >= 0; k--) {
    coefficients[k] = (coefficients[k + 1] * (2 * order - k) * (k + 1)) / (2 * (order - k));
  }
  return { sections: sectionsOfRoots(polynomialRoots(coefficients)), dcGain: 1 };
}

/** All poles at one place: the fastest fall without overshoot of the step response. */
function criticallyDamped(order: number): Prototype {
  const sections: PoleSection[] = pairs(order).map(() => ({ w0: 1, q: 0.5 }));
  return { sections: order % 2 === 1 ? [{ w0: 1 }, ...sections] : sections, dcGain: 1 };
}

const pairs = (order: number) => Array.from({ length: Math.floor(order / 2) }, (_, k) => k);

function fromPole(sigma: number, omega: number): PoleSection {
  const w0 = Math.hypot(sigma, omega);
  return { w0, q: w0 / (2 * sigma) };
}

/** |H(j w)| of a prototype. */
export function prototypeMagnitude({ sections, dcGain }: Prototype, w: number): number {
  return sections.reduce((product, { w0, q }) => {
    const x = w / w0;
    return product / (q === undefined ? Math.hypot(1, x) : Math.hypot(1 - x * x, x / q));
  }, dcGain);
}

function withEdge(prototype: Prototype, edge: Edge, rippleDb: number): Prototype {
  if (edge === 'asymptote') {
    // The high-frequency asymptote is dcGain * prod(w0^m) / w^n; it crosses the pass band where w^n = that.
    const order = prototype.sections.reduce((n, s) => n + (s.q === undefined ? 1 : 2), 0);
    const product = prototype.sections.reduce(
      (p, s) => p * (s.q === undefined ? s.w0 : s.w0 ** 2),
      prototype.dcGain,
    );
    return scaleFrequency(prototype, product ** (-1 / order));
  }
  const target =
    edge === 'half-power' ? HALF_POWER : edge === 'half-voltage' ? 0.5 : 10 ** (-rippleDb / 20);
  // The last crossing: beyond the largest pole radius the magnitude only falls.
  let high = Math.max(...prototype.sections.map((s) => s.w0));
  while (prototypeMagnitude(prototype, high) > target) high *= 2;
  let low = high;
  while (prototypeMagnitude(prototype, low) <= target && low > 1e-9) low *= 0.98;
  const at = Math.exp(
    findZero(
      (u) => prototypeMagnitude(prototype, Math.exp(u)) - target,
      Math.log(low),
      Math.log(low / 0.98),
      1e-15,
    ),
  );
  return scaleFrequency(prototype, 1 / at);
}

function scaleFrequency(prototype: Prototype, factor: number): Prototype {
  return { ...prototype, sections: prototype.sections.map((s) => ({ ...s, w0: s.w0 * factor })) };
}

interface Complex {
  re: number;
  im: number;
}

/** Group the roots of a real polynomial into pairs and a single. */
function sectionsOfRoots(roots: Complex[]): PoleSection[] {
  const real = roots
    .filter((r) => Math.abs(r.im) < 1e-9 * Math.abs(r.re))
    .map((r) => ({ w0: -r.re }));
  const upper = roots
    .filter((r) => r.im >= 1e-9 * Math.abs(r.re))
    .map((r) => fromPole(-r.re, r.im));
  return [...real, ...upper.sort((a, b) => a.q! - b.q!)];
}

/** All roots of a polynomial (coefficients rising), O. Aberth, Math. Comp. 27, 1973. */
export function polynomialRoots(coefficients: number[]): Complex[] {
  const n = coefficients.length - 1;
  const radius = Math.abs(coefficients[0] / coefficients[n]) ** (1 / n);
  const z = Array.from({ length: n }, (_, k) => ({
    re: radius * Math.cos((2 * Math.PI * k) / n + 0.7),
    im: radius * Math.sin((2 * Math.PI * k) / n + 0.7),
  }));
  for (let pass = 0; pass < 200; pass++) {
    let moved = 0;
    for (let k = 0; k < n; k++) {
      let [p, dp] = [
        { re: coefficients[n], im: 0 },
        { re: 0, im: 0 },
      ];
      for (let i = n - 1; i >= 0; i--) {
        dp = plus(times(dp, z[k]), p);
        p = plus(times(p, z[k]), { re: coefficients[i], im: 0 });
      }
      const newton = over(p, dp);
      let repel = { re: 0, im: 0 };
      for (let j = 0; j < n; j++)
        if (j !== k) repel = plus(repel, over({ re: 1, im: 0 }, minus(z[k], z[j])));
      const step = over(newton, minus({ re: 1, im: 0 }, times(newton, repel)));
      z[k] = minus(z[k], step);
      moved = Math.max(moved, Math.hypot(step.re, step.im) / radius);
    }
    if (moved < 1e-15) break;
  }
  return z;
}

const plus = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });
const minus = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im });
const times = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
const over = (a: Complex, b: Complex): Complex => {
  const n = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / n, im: (a.im * b.re - a.re * b.im) / n };
};
