import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Sheet } from '@/core/sheet/schema';
import { overLayers, type OverLayers } from './layers';

export type HarmonicWave = 'square' | 'saw';

export interface HarmonicsRequest {
  wave: HarmonicWave;
  fundamentalHz: number;
  /** How far the cut-off is moved: 2 is an octave up. */
  shift: number;
}

export interface HarmonicsPicture {
  orders: number[];
  /** Peak volts of each harmonic of a wave that swings by one volt about zero. */
  input: Float64Array;
  layers: OverLayers<{ amplitude: Float64Array; phase: Float64Array }>;
}

export const HARMONICS = 24;

/** Fourier series of a square 4/(n pi) for odd n, of a falling saw 2/(n pi), both of +-1 V. */
export const waveHarmonic = (wave: HarmonicWave, n: number): number =>
  wave === 'square' ? (n % 2 === 1 ? 4 / (Math.PI * n) : 0) : 2 / (Math.PI * n);

/**
 * A wave's harmonics before and behind every layer. Moving a cut-off by a factor moves the whole
 * response along the frequency axis, so harmonic n is read at n f / shift.
 */
export function harmonicsLens(sheet: Sheet, request: HarmonicsRequest): HarmonicsPicture {
  const orders = Array.from({ length: HARMONICS }, (_, k) => k + 1);
  const input = Float64Array.from(orders, (n) => waveHarmonic(request.wave, n));
  const frequenciesHz = orders.map((n) => (n * request.fundamentalHz) / request.shift);
  return {
    orders,
    input,
    layers: overLayers(sheet, (circuit) => {
      const { re, im } = new AcAnalysis(circuit).solve({ frequenciesHz, probes: ['out'] }).probes
        .out;
      return {
        amplitude: input.map((a, k) => a * Math.hypot(re[k], im[k])),
        phase: input.map((_, k) => Math.atan2(im[k], re[k])),
      };
    }),
  };
}

/** One period and a half of a sum of sine harmonics, from their amplitudes and phases. */
export function waveFromHarmonics(
  amplitude: Float64Array,
  phase: Float64Array | undefined,
  points: number,
): Float64Array {
  return Float64Array.from({ length: points }, (_, k) => {
    const angle = (2 * Math.PI * 1.5 * k) / (points - 1);
    return amplitude.reduce((v, a, i) => v + a * Math.sin((i + 1) * angle + (phase?.[i] ?? 0)), 0);
  });
}
