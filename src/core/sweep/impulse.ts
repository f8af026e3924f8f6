import FFT from 'fft.js';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { inverseTransform } from '@/core/speaker/inverse-transform';

/** What a device makes of an impulse, around a circle of samples: times before zero stand at its end. */
export interface Impulse {
  samples: Float64Array;
  rate: number;
}

/** Where a sweep has less power than this part of its strongest frequency, nothing is divided by it. */
const FAINT = 1e-7;

/** Half the spectrum of a real signal, from zero to half the rate, both ends included. */
export function halfSpectrum(samples: Float64Array, size: number): ComplexTrace {
  const fft = new FFT(size);
  const padded = new Array<number>(size).fill(0);
  for (let n = 0; n < Math.min(size, samples.length); n++) padded[n] = samples[n];
  const out = fft.createComplexArray() as number[];
  fft.realTransform(out, padded);
  const half = { re: new Float64Array(size / 2 + 1), im: new Float64Array(size / 2 + 1) };
  for (let k = 0; k <= size / 2; k++) {
    half.re[k] = out[2 * k];
    half.im[k] = out[2 * k + 1];
  }
  return half;
}

/** A power of two that holds so many samples twice, so that nothing runs into itself. */
export const circleOf = (samples: number): number => 2 ** Math.ceil(Math.log2(2 * samples));

/** Frequencies between which something was played. */
export interface Band {
  fromHz: number;
  toHz: number;
}

/** Beyond a band it is divided up to this far, less and less. */
const BELOW = 1.5;
const ABOVE = 1.1;

/**
 * The impulse response by dividing what came back by what was played, frequency by frequency; where
 * the sweep had nothing, nothing is told. Harmonics of order n come out ahead of the rest, by
 * growth x ln(n) (A. Farina, 2000).
 */
export class Deconvolution {
  private readonly half: ComplexTrace;

  constructor(
    recorded: Float64Array,
    played: Float64Array,
    private readonly rate: number,
  ) {
    const size = circleOf(Math.max(recorded.length, played.length));
    const [y, x] = [halfSpectrum(recorded, size), halfSpectrum(played, size)];
    const powers = x.re.map((re, k) => re * re + x.im[k] * x.im[k]);
    const faint = FAINT * powers.reduce((a, b) => Math.max(a, b), 0);
    const weights = powers.map((power) => power / (power ** 2 + faint ** 2));
    this.half = {
      re: weights.map((weight, k) => (y.re[k] * x.re[k] + y.im[k] * x.im[k]) * weight),
      im: weights.map((weight, k) => (y.im[k] * x.re[k] - y.re[k] * x.im[k]) * weight),
    };
  }

  /** As exact as can be; what lies beside the band of the sweep may be large in it. */
  whole(): Impulse {
    return { samples: inverseTransform(this.half), rate: this.rate };
  }

  /** Without hum and offsets beside a band, and therefore with a little ringing ahead of everything. */
  within(band: Band): Impulse {
    const { re, im } = this.half;
    const step = this.rate / (2 * (re.length - 1));
    const kept = re.map((_, k) => partWithin(k * step, band));
    const half = { re: re.map((v, k) => v * kept[k]), im: im.map((v, k) => v * kept[k]) };
    return { samples: inverseTransform(half), rate: this.rate };
  }
}

/** Which part of a frequency is kept: all within the band, half a cosine over its logarithm beside it. */
function partWithin(hz: number, { fromHz, toHz }: Band): number {
  const beyond =
    hz < fromHz
      ? Math.log(fromHz / hz) / Math.log(BELOW)
      : Math.max(0, Math.log(hz / toHz) / Math.log(ABOVE));
  return beyond >= 1 ? 0 : (1 + Math.cos(Math.PI * beyond)) / 2;
}

/** Which part of an impulse response is looked at, seconds from its zero. */
export interface Window {
  fromSeconds: number;
  toSeconds: number;
}

/** Of a window, so much at each end rises and falls gently. */
const EDGE = 0.15;

/**
 * The spectrum of a part of an impulse response at any frequencies, its zero at `zeroSeconds`.
 */
export function spectrumOf(
  { samples, rate }: Impulse,
  { fromSeconds, toSeconds }: Window,
  zeroSeconds: number,
  frequenciesHz: Float64Array,
): ComplexTrace {
  const size = samples.length;
  const [first, last] = [Math.ceil(fromSeconds * rate), Math.floor(toSeconds * rate)];
  const count = last - first + 1;
  const own = new Float64Array(count);
  // What lies before the zero is a rise of its own, so that the zero itself is kept whole.
  const before = Math.max(1, Math.round(zeroSeconds * rate) - first);
  const after = Math.max(1, Math.round(EDGE * count));
  for (let i = 0; i < count; i++) {
    const rise = Math.min(1, (i + 1) / before);
    const fall = Math.min(1, (count - i) / after);
    const weight = ((1 - Math.cos(Math.PI * rise)) / 2) * ((1 - Math.cos(Math.PI * fall)) / 2);
    own[i] = weight * samples[(((first + i) % size) + size) % size];
  }
  const re = new Float64Array(frequenciesHz.length);
  const im = new Float64Array(frequenciesHz.length);
  frequenciesHz.forEach((hz, k) => {
    const step = (2 * Math.PI * hz) / rate;
    // A rotation for each sample, put right now and then against the rounding of the product.
    let [sumRe, sumIm] = [0, 0];
    let [c, s] = [1, 0];
    const [turnC, turnS] = [Math.cos(step), Math.sin(step)];
    for (let i = 0; i < count; i++) {
      if (i % RENEWED === 0) {
        const angle = step * (first + i - zeroSeconds * rate);
        [c, s] = [Math.cos(angle), Math.sin(angle)];
      }
      sumRe += own[i] * c;
      sumIm -= own[i] * s;
      const next = c * turnC - s * turnS;
      s = s * turnC + c * turnS;
      c = next;
    }
    re[k] = sumRe;
    im[k] = sumIm;
  });
  return { re, im };
}

const RENEWED = 512;

/** A response is looked at for so long after it begins, at most. */
export const LONGEST_SECONDS = 1.2;
/** And from a little before. */
export const AHEAD_SECONDS = 0.004;
/** So soon after it begins, at least so much of a response has passed: what is spread wider is something else. */
const SOON_SECONDS = 0.1;
const SOON_PART = 0.4;
/** What is quieter than this is no recording of anything. */
export const SILENT = 1e-5;

export const power = (samples: Float64Array): number => samples.reduce((sum, v) => sum + v * v, 0);

export const peakOf = (samples: Float64Array): number =>
  samples.reduce((most, v) => Math.max(most, Math.abs(v)), 0);

/** Where an impulse response begins: half a sample either way at its highest point. */
export function arrivalOf({ samples, rate }: Impulse): number {
  let highest = 0;
  // What arrives comes after it was played: the other half of the circle is of harmonics.
  const half = samples.length / 2;
  for (let n = 1; n < half; n++) if (Math.abs(samples[n]) > Math.abs(samples[highest])) highest = n;
  return highest / rate;
}

/** Whether an impulse response is one: most of it comes soon after it begins. */
export function isSoon(impulse: Impulse): boolean {
  const { samples, rate } = impulse;
  const size = samples.length;
  const from = Math.round((arrivalOf(impulse) - AHEAD_SECONDS) * rate);
  const to = from + Math.round((AHEAD_SECONDS + SOON_SECONDS) * rate);
  let soon = 0;
  for (let n = from; n < to; n++) soon += samples[((n % size) + size) % size] ** 2;
  return soon >= SOON_PART * power(samples);
}
