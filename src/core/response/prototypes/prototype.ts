import type { Complex } from '@/core/numeric/complex';

/** A pair of poles with radius `w0` and quality factor `q`, or a single real pole at `-w0`. */
export interface PoleSection {
  w0: number;
  q?: number;
}

/**
 * A low-pass in normalised form, its edge at 1 rad/s: poles, pairs of zeros on the imaginary axis,
 * and the level at d.c. relative to the top of the pass band (below 1 for even orders that ripple).
 */
export interface Prototype {
  sections: PoleSection[];
  /** Frequencies of the zero pairs, rad/s; empty for an all-pole shape. */
  zeros: number[];
  dcGain: number;
  /**
   * Where |H| touches the top of its pass band, rad/s, one for each order (a pair's two ends count
   * twice); known for the shapes that lossless ladders are synthesised from.
   */
  touches?: number[];
}

/** 0, 1, ... one for each pair of poles. */
export const pairs = (order: number) => Array.from({ length: Math.floor(order / 2) }, (_, k) => k);

export const orderOf = ({ sections }: Pick<Prototype, 'sections'>): number =>
  sections.reduce((n, s) => n + (s.q === undefined ? 1 : 2), 0);

export function sectionFromPole({ re, im }: Complex): PoleSection {
  const w0 = Math.hypot(re, im);
  return { w0, q: w0 / (-2 * re) };
}

/** Poles in the left half plane as pairs and singles, lowest Q first. */
export function sectionsOfPoles(poles: readonly Complex[]): PoleSection[] {
  const real = poles
    .filter((p) => Math.abs(p.im) < 1e-9 * Math.abs(p.re))
    .map((p) => ({ w0: -p.re }));
  const upper = poles.filter((p) => p.im >= 1e-9 * Math.abs(p.re)).map(sectionFromPole);
  return [...real, ...upper.sort((a, b) => a.q! - b.q!)];
}

/** The poles of a section: one, or a conjugate pair (or two real ones, for q below one half). */
export function polesOfSection({ w0, q }: PoleSection): Complex[] {
  if (q === undefined) return [{ re: -w0, im: 0 }];
  const re = -w0 / (2 * q);
  const under = 1 - 1 / (4 * q * q);
  if (under < 0) {
    // Vieta's formula keeps the small one exact.
    const large = re - w0 * Math.sqrt(-under);
    return [
      { re: large, im: 0 },
      { re: (w0 * w0) / large, im: 0 },
    ];
  }
  const im = w0 * Math.sqrt(under);
  return [
    { re, im },
    { re, im: -im },
  ];
}

/** |H(j w)| of a prototype, relative to the top of its pass band. */
export function prototypeMagnitude({ sections, zeros, dcGain }: Prototype, w: number): number {
  let product = dcGain;
  for (const { w0, q } of sections) {
    const x = w / w0;
    product /= q === undefined ? Math.hypot(1, x) : Math.hypot(1 - x * x, x / q);
  }
  for (const z of zeros) product *= Math.abs(1 - (w / z) ** 2);
  return product;
}

/** Phase of H(j w), radians, followed from zero at d.c. (zeros on the axis turn it by 180 degrees). */
export function prototypePhase({ sections }: Pick<Prototype, 'sections'>, w: number): number {
  return sections.reduce((sum, { w0, q }) => {
    const x = w / w0;
    return sum - (q === undefined ? Math.atan(x) : Math.atan2(x / q, 1 - x * x));
  }, 0);
}

/** Group delay at d.c., seconds. */
export function delayAtDc({ sections }: Pick<Prototype, 'sections'>): number {
  return sections.reduce((sum, { w0, q }) => sum + 1 / (w0 * (q ?? 1)), 0);
}

export function scaleFrequency(prototype: Prototype, factor: number): Prototype {
  return {
    ...prototype,
    sections: prototype.sections.map((s) => ({ ...s, w0: s.w0 * factor })),
    zeros: prototype.zeros.map((z) => z * factor),
    ...(prototype.touches ? { touches: prototype.touches.map((w) => w * factor) } : {}),
  };
}
