import { AcAnalysis } from '@/core/analysis/ac/ac';
import { deviceOf } from '@/core/circuit/devices';
import { valueOf, withValue } from '@/core/circuit/values';
import type { Circuit } from '@/core/circuit/schema';
import { LOAD_FARADS } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { overLayers, sourceVolts, withoutPause, type OverLayers, type Pause } from './layers';

export type HarmonicWave = 'square' | 'saw';

export interface HarmonicsRequest {
  wave: HarmonicWave;
  fundamentalHz: number;
  /** How far the cut-off is moved: 2 is an octave up. */
  shift: number;
}

export interface HarmonicsPicture {
  orders: number[];
  /** The source's voltage: how far the wave swings to either side. */
  volts: number;
  /** Peak volts of each harmonic. */
  input: Float64Array;
  layers: OverLayers<{ amplitude: Float64Array; phase: Float64Array }>;
}

export const HARMONICS = 24;

/** Fourier series of a square 4/(n pi) for odd n, of a falling saw 2/(n pi), both of +-1 V. */
export const waveHarmonic = (wave: HarmonicWave, n: number): number =>
  wave === 'square' ? (n % 2 === 1 ? 4 / (Math.PI * n) : 0) : 2 / (Math.PI * n);

/**
 * A wave's harmonics before and behind every layer, in volts. The wave swings between plus and minus
 * the source's voltage. The cut-off is moved by changing every capacitor and coil of the filter;
 * op-amps, source and load stay what they are, so each place is solved for itself.
 */
export async function harmonicsLens(
  sheet: Sheet,
  request: HarmonicsRequest,
  pause: Pause = withoutPause,
): Promise<HarmonicsPicture> {
  const orders = Array.from({ length: HARMONICS }, (_, k) => k + 1);
  const ofOne = orders.map((n) => waveHarmonic(request.wave, n));
  const frequenciesHz = orders.map((n) => n * request.fundamentalHz);
  const volts = sheet.source.volts;
  return {
    orders,
    volts,
    input: Float64Array.from(ofOne, (a) => a * volts),
    layers: await overLayers(sheet, pause, (circuit, layer) => {
      const own = sourceVolts(layer);
      const { re, im } = new AcAnalysis(moved(circuit, request.shift)).voltage(
        'out',
        Float64Array.from(frequenciesHz),
      );
      return {
        amplitude: Float64Array.from(ofOne, (a, k) => a * own * Math.hypot(re[k], im[k])),
        phase: Float64Array.from(ofOne, (_, k) => Math.atan2(im[k], re[k])),
      };
    }),
  };
}

/** A path's circuit with its cut-off moved: reactances of the filter, not of the load, are scaled. */
export function moved(circuit: Circuit, shift: number): Circuit {
  return {
    ...circuit,
    parts: circuit.parts.map((part) => {
      if (part.id === LOAD_FARADS) return part;
      const { stores } = deviceOf(part.kind);
      return stores ? withValue(part, stores, valueOf(part, stores) / shift) : part;
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
