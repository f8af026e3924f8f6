import { over, type Complex } from '@/core/numeric/complex';
import { pairs, sectionFromPole, type PoleSection, type Prototype } from './prototype';

/** Poles on an ellipse (A. I. Zverev, "Handbook of Filter Synthesis", 1967, section 3.5); the ripple ends at 1 rad/s. */
export function chebyshev(order: number, rippleDb: number): Prototype {
  const epsilon = Math.sqrt(10 ** (rippleDb / 10) - 1);
  const touches = Array.from({ length: order }, (_, k) =>
    Math.abs(Math.cos(((2 * k + 1) * Math.PI) / (2 * order))),
  );
  return {
    sections: ellipsePoles(order, epsilon),
    zeros: [],
    dcGain: order % 2 === 1 ? 1 : 1 / Math.sqrt(1 + epsilon ** 2),
    touches,
  };
}

/**
 * Flat in the pass band, equal ripples in the stop band: the Chebyshev poles turned inside out
 * (Zverev, section 3.6). The stop-band level is reached at 1 rad/s.
 */
export function inverseChebyshev(order: number, stopbandDb: number): Prototype {
  const epsilon = 1 / Math.sqrt(10 ** (stopbandDb / 10) - 1);
  const sections = ellipsePoles(order, epsilon).map(({ w0, q }) => ({
    w0: 1 / w0,
    ...(q === undefined ? {} : { q }),
  }));
  const zeros = pairs(order).map((k) => 1 / Math.cos(((2 * k + 1) * Math.PI) / (2 * order)));
  return { sections, zeros, dcGain: 1, touches: new Array<number>(order).fill(0) };
}

function ellipsePoles(order: number, epsilon: number): PoleSection[] {
  const a = Math.asinh(1 / epsilon) / order;
  const sections: PoleSection[] = pairs(order).map((k) => {
    const theta = ((2 * k + 1) * Math.PI) / (2 * order);
    return sectionFromPole({
      re: -Math.sinh(a) * Math.sin(theta),
      im: Math.cosh(a) * Math.cos(theta),
    });
  });
  return order % 2 === 1 ? [{ w0: Math.sinh(a) }, ...sections] : sections;
}

/*
 * Jacobi's elliptic functions by Landen's descending transformation (M. Abramowitz, I. A. Stegun,
 * "Handbook of Mathematical Functions", 16.12): the moduli k1 > k2 > ... fall quadratically to zero,
 * where sn and cd are sine and cosine. Arguments count quarter periods.
 */
function landen(k: number): number[] {
  const moduli: number[] = [];
  for (let v = k; v > 1e-17 && moduli.length < 12;) {
    v = (v / (1 + Math.sqrt((1 - v) * (1 + v)))) ** 2;
    moduli.push(v);
  }
  return moduli;
}

/** Up the Landen chain: w -> (1 + v) w / (1 + v w^2), from the smallest modulus to the largest. */
function ascend(w: Complex, moduli: number[]): Complex {
  return moduli.reduceRight((x, v) => {
    const square = { re: x.re * x.re - x.im * x.im, im: 2 * x.re * x.im };
    return over(
      { re: (1 + v) * x.re, im: (1 + v) * x.im },
      { re: 1 + v * square.re, im: v * square.im },
    );
  }, w);
}

/** cd((u - j v) K, k). */
function cd(u: number, v: number, moduli: number[]): Complex {
  const [a, b] = [(Math.PI / 2) * u, (Math.PI / 2) * v];
  return ascend({ re: Math.cos(a) * Math.cosh(b), im: Math.sin(a) * Math.sinh(b) }, moduli);
}

/** The v for which sn(j v K, k) = j y. */
function inverseSnImaginary(y: number, k: number): number {
  const moduli = landen(k);
  let w = y;
  let above = k;
  for (const v of moduli) {
    w = ((w / (1 + Math.sqrt(1 + (w * above) ** 2))) * 2) / (1 + v);
    above = v;
  }
  return (2 / Math.PI) * Math.asinh(w);
}

/** The arithmetic-geometric mean: K(k) = pi / (2 agm(1, k')). */
function agm(a: number, b: number): number {
  // Quadratic: a dozen rounds reach the last digit from anywhere.
  for (let round = 0; round < 40 && Math.abs(a - b) > 1e-15 * a; round++)
    [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return a;
}

/** The modulus whose quarter-period ratio is `order` times less than that of k1, by its nome. */
function degreeModulus(order: number, k1: number): number {
  const complement = Math.sqrt((1 - k1) * (1 + k1));
  const nome = Math.exp((-Math.PI * agm(1, complement)) / agm(1, k1));
  const q = nome ** (1 / order);
  let [top, bottom] = [0, 0];
  for (let m = 0; m < 40; m++) {
    top += q ** (m * (m + 1));
    if (m > 0) bottom += q ** (m * m);
  }
  return 4 * Math.sqrt(q) * (top / (1 + 2 * bottom)) ** 2;
}

/**
 * Equal ripples in both bands: the steepest fall an order can give (W. Cauer, 1931; formulas as in
 * R. Schaumann, M. E. Van Valkenburg, "Design of Analog Filters", 2001, section 8.5). The pass-band
 * ripple ends at 1 rad/s.
 */
export function elliptic(order: number, rippleDb: number, stopbandDb: number): Prototype {
  if (order === 1) return chebyshev(1, rippleDb);
  const epsilon = Math.sqrt(10 ** (rippleDb / 10) - 1);
  const k1 = epsilon / Math.sqrt(10 ** (stopbandDb / 10) - 1);
  const k = degreeModulus(order, k1);
  const moduli = landen(k);
  const v0 = inverseSnImaginary(1 / epsilon, k1) / order;
  const places = pairs(order).map((i) => (2 * i + 1) / order);
  const sections: PoleSection[] = places.map((u) => {
    const { re, im } = cd(u, v0, moduli);
    // p = j cd(...)
    return sectionFromPole({ re: -Math.abs(im), im: re });
  });
  const ends = places.map((u) => cd(u, 0, moduli).re);
  if (order % 2 === 1) {
    // The real pole j sn(j v0 K, k).
    const sine = ascend({ re: 0, im: Math.sinh((Math.PI / 2) * v0) }, moduli);
    sections.unshift({ w0: Math.abs(sine.im) });
  }
  return {
    sections,
    zeros: ends.map((w) => 1 / (k * w)),
    dcGain: order % 2 === 1 ? 1 : 1 / Math.sqrt(1 + epsilon ** 2),
    touches: [...ends.flatMap((w) => [w, w]), ...(order % 2 === 1 ? [0] : [])],
  };
}
