import { polynomialRoots } from '../polynomial';
import { solveReal } from '../solve-real';
import { ReedError } from '@/core/errors';
import {
  pairs,
  prototypePhase,
  sectionsOfPoles,
  type PoleSection,
  type Prototype,
} from './prototype';

/**
 * Maximally flat delay (W. E. Thomson, "Delay Networks having Maximally Flat Frequency
 * Characteristics", Proc. IEE 96, 1949): roots of the reverse Bessel polynomial, here for a delay
 * of one second.
 */
export function bessel(order: number): Prototype {
  // theta_n(s) = sum_k  a_k s^k,  a_k = (2n - k)! / (2^(n-k) k! (n-k)!), from a_n = 1 downwards.
  const coefficients = new Array<number>(order + 1).fill(1);
  for (let k = order - 1; k >= 0; k--) {
    coefficients[k] = (coefficients[k + 1] * (2 * order - k) * (k + 1)) / (2 * (order - k));
  }
  return { sections: sectionsOfPoles(polynomialRoots(coefficients)), zeros: [], dcGain: 1 };
}

/** All poles at one place: the fastest fall without overshoot of the step response. */
export function criticallyDamped(order: number): Prototype {
  const sections: PoleSection[] = pairs(order).map(() => ({ w0: 1, q: 0.5 }));
  return {
    sections: order % 2 === 1 ? [{ w0: 1 }, ...sections] : sections,
    zeros: [],
    dcGain: 1,
  };
}

/** Poles of 1 / sqrt(p(w^2)): the roots of p(-s^2) in the left half plane. */
export function sectionsOfPower(p: readonly number[]): PoleSection[] {
  const poles = polynomialRoots(p).map(({ re, im }) => {
    // s^2 = -x; of the two roots the one on the left.
    const size = Math.hypot(re, im);
    const real = -Math.sqrt(Math.max(0, (size - re) / 2));
    const imaginary = -im / (2 * real);
    return { re: real, im: Math.abs(im) < 1e-12 * size ? 0 : imaginary };
  });
  return sectionsOfPoles(poles);
}

/**
 * The Gaussian curve exp(-w^2) through its first n + 1 terms: 1 / (1 + w^2 + w^4/2! + ...)
 * (M. Dishal, "Gaussian-Response Filter Design", Electrical Communication 36, 1959).
 */
export function gaussian(order: number): Prototype {
  const terms = [1];
  for (let k = 1; k <= order; k++) terms.push(terms[k - 1] / k);
  return { sections: sectionsOfPower(terms), zeros: [], dcGain: 1 };
}

/**
 * The steepest monotonic fall (A. Papoulis, "Optimum Filters with Monotonic Response", Proc. IRE 46,
 * 1958; for even orders M. Fukada, 1959): |H|^2 = 1 / (1 + L(w^2)) with L built from the square of a
 * sum of Legendre polynomials. 3.01 dB down at 1 rad/s.
 */
export function optimumL(order: number): Prototype {
  const odd = order % 2 === 1;
  const k = odd ? (order - 1) / 2 : (order - 2) / 2;
  // Legendre polynomials P_0 ... P_k.
  const legendre: number[][] = [[1], [0, 1]];
  for (let n = 1; n < k; n++) {
    const next = [0, ...legendre[n].map((c) => (c * (2 * n + 1)) / (n + 1))];
    legendre[n - 1].forEach((c, i) => (next[i] -= (c * n) / (n + 1)));
    legendre.push(next);
  }
  const sum = new Array<number>(k + 1).fill(0);
  for (let i = 0; i <= k; i++) {
    if (!odd && i % 2 !== k % 2) continue;
    legendre[i].forEach((c, j) => (sum[j] += (2 * i + 1) * c));
  }
  const scale = odd ? 1 / (Math.SQRT2 * (k + 1)) : 1 / Math.sqrt((k + 1) * (k + 2));
  let integrand = squareOf(sum.map((c) => c * scale));
  if (!odd) integrand = [0, ...integrand].map((c, i) => c + (integrand[i] ?? 0));
  const integral = [0, ...integrand.map((c, i) => c / (i + 1))];
  const atMinusOne = integral.reduce((s, c, i) => s + c * (-1) ** i, 0);
  integral[0] -= atMinusOne;
  // Put 2 x - 1 in for the variable, x = w^2.
  let power = [1];
  const inX = [0];
  integral.forEach((c) => {
    power.forEach((p, i) => (inX[i] = (inX[i] ?? 0) + c * p));
    power = [0, ...power.map((p) => 2 * p)].map((p, i) => p - (power[i] ?? 0));
  });
  inX[0] += 1;
  return { sections: sectionsOfPower(inX.slice(0, order + 1)), zeros: [], dcGain: 1 };
}

function squareOf(p: number[]): number[] {
  const square = new Array<number>(2 * p.length - 1).fill(0);
  p.forEach((a, i) => p.forEach((b, j) => (square[i + j] += a * b)));
  return square;
}

/**
 * Phase that keeps within `rippleDegrees` of a straight line, with equal ripples (the idea of
 * E. Ulbrich and H. Piloty, Archiv der elektrischen Übertragung 14, 1960), found by exchange: the
 * polynomial whose phase misses w by plus and minus the ripple at n frequencies follows from linear
 * equations; the frequencies then move to where its error really peaks. Delay one second.
 */
export function equalRipplePhase(order: number, rippleDegrees: number): Prototype {
  const ripple = (rippleDegrees * Math.PI) / 180;
  const width = Math.max(0.6, (order - 1) * (Math.PI / 2) * 0.75 + 0.6);
  let extremes = Array.from(
    { length: order },
    (_, i) => width * Math.sin(((Math.PI / 2) * (i + 1)) / (order + 0.3)),
  );
  for (let pass = 0; pass < 60; pass++) {
    const sections = throughPoints(extremes, ripple);
    const found = errorPeaks(sections, order, extremes[order - 1] * 1.25);
    if (found.length < order) break;
    const moved = found.reduce((m, w, i) => Math.max(m, Math.abs(w - extremes[i])), 0);
    extremes = found;
    // A peak is flat: its place is known to half the digits, its height to nearly all.
    if (moved < 1e-6 * extremes[order - 1])
      return { sections: throughPoints(extremes, ripple), zeros: [], dcGain: 1 };
  }
  throw new ReedError(
    'design',
    `No phase of order ${order} with ${rippleDegrees}° of ripple was found: ask for a ripple nearer to 0.05°.`,
  );
}

/** The polynomial whose phase at each frequency is w plus or minus the ripple, the last one plus. */
function throughPoints(w: number[], ripple: number): PoleSection[] {
  const n = w.length;
  const unit = w[n - 1];
  const rows = w.map((at, i) => {
    const angle = at + ((n - 1 - i) % 2 === 0 ? ripple : -ripple);
    // sin(angle) Re P - cos(angle) Im P = 0, with Re and Im from the powers of j.
    return Array.from({ length: n + 1 }, (_, k) => {
      const x = (at / unit) ** k;
      const quarter = k % 4;
      return x * [Math.sin(angle), -Math.cos(angle), -Math.sin(angle), Math.cos(angle)][quarter];
    });
  });
  const a = solveReal(
    rows.map((row) => row.slice(1)),
    rows.map((row) => -row[0]),
  );
  const coefficients = [1, ...a];
  const poles = polynomialRoots(coefficients).map(({ re, im }) => ({
    re: re * unit,
    im: Math.abs(im) < 1e-11 * Math.abs(re) ? 0 : im * unit,
  }));
  return sectionsOfPoles(poles);
}

/** Where the phase error has its extremes, from d.c. up to `to`: the first `count` of them. */
function errorPeaks(sections: PoleSection[], count: number, to: number): number[] {
  const error = (w: number) => -prototypePhase({ sections }, w) - w;
  const steps = 400;
  const at = (i: number) => (to * i) / steps;
  const peaks: number[] = [];
  for (let i = 1; i < steps && peaks.length < count; i++) {
    const [a, b, c] = [error(at(i - 1)), error(at(i)), error(at(i + 1))];
    if ((b - a) * (c - b) > 0) continue;
    const sign = b >= a ? 1 : -1;
    // Golden-section search would do; the slope is smooth, so halve on its sign.
    let [low, high] = [at(i - 1), at(i + 1)];
    for (let pass = 0; pass < 60; pass++) {
      const third = (high - low) / 3;
      if (sign * error(low + third) > sign * error(high - third)) high -= third;
      else low += third;
    }
    peaks.push((low + high) / 2);
  }
  return peaks;
}
