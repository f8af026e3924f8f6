import { AcAnalysis } from '@/core/analysis/ac/ac';
import { deviceOf } from '@/core/circuit/devices';
import { valueOf, withValue } from '@/core/circuit/values';
import type { Circuit } from '@/core/circuit/schema';
import { LOAD_FARADS } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { turnedTo } from '@/core/sheet/knobs/travel';
import { partialsOf, SteadyRun } from '@/core/synth/steady';
import { filterFigures } from '@/core/synth/tune';
import { aroundView } from './control';
import { overLayers, sourceVolts, withoutPause, type OverLayers, type Pause } from './layers';

export type HarmonicWave = 'square' | 'saw';

export interface HarmonicsRequest {
  wave: HarmonicWave;
  fundamentalHz: number;
  /** How far the cut-off is moved: 2 is an octave up. */
  shift: number;
  /** The control that moves it instead, and where that stands. */
  control?: { id: string; at: number };
}

export interface HarmonicsPicture {
  orders: number[];
  /** The source's voltage: how far the wave swings to either side. */
  volts: number;
  /** Peak volts of each harmonic. */
  input: Float64Array;
  layers: OverLayers<Partials>;
  /** Where the built filter cuts off there; null where it does nowhere. */
  cutOffHz: number | null;
  /** Through a slope of six decibels an octave, and through one of eight times that, at the same place. */
  slopes: Record<'gentle' | 'steep', Partials> | null;
}

export interface Partials {
  amplitude: Float64Array;
  phase: Float64Array;
}

export const HARMONICS = 24;

/** Fourier series of a square 4/(n pi) for odd n, of a falling saw 2/(n pi), both of +-1 V. */
export const waveHarmonic = (wave: HarmonicWave, n: number): number =>
  wave === 'square' ? (n % 2 === 1 ? 4 / (Math.PI * n) : 0) : 2 / (Math.PI * n);

/**
 * A wave's harmonics before and behind every layer, in volts. The wave swings between plus and minus
 * the source's voltage. The cut-off is moved by its control, or by changing every capacitor and coil of
 * the filter; op-amps, source and load stay what they are, so each place is solved for itself, and a
 * circuit that bends the wave is run over time.
 */
export async function harmonicsLens(
  sheet: Sheet,
  request: HarmonicsRequest,
  pause: Pause = withoutPause,
): Promise<HarmonicsPicture> {
  const { wave, fundamentalHz, shift, control } = request;
  const orders = Array.from({ length: HARMONICS }, (_, k) => k + 1);
  const ofOne = orders.map((n) => waveHarmonic(wave, n));
  const frequenciesHz = Float64Array.from(orders, (n) => n * fundamentalHz);
  const { volts } = sheet.source;
  const set = control ? turnedTo(sheet, control.id, control.at) : sheet;
  let cutOffHz: number | null = null;
  const layers = await overLayers(set, pause, (circuit, layer): Partials => {
    const own = sourceVolts(layer);
    const there = control ? circuit : moved(circuit, shift);
    const analysis = new AcAnalysis(there);
    if (layer.id === 'built') cutOffHz = cutOffOf(analysis, sheet);
    if (layer.id !== 'ideal' && bends(there)) {
      const run = new SteadyRun(there, UNIT_SOURCE.id, 'out', fundamentalHz);
      return partialsOf(run.cycle({ wave, volts: own }).volts, HARMONICS);
    }
    const { re, im } = analysis.voltage('out', frequenciesHz);
    return {
      amplitude: Float64Array.from(ofOne, (a, k) => a * own * Math.hypot(re[k], im[k])),
      phase: Float64Array.from(ofOne, (_, k) => Math.atan2(im[k], re[k])),
    };
  });
  const input = Float64Array.from(ofOne, (a) => a * volts);
  return {
    orders,
    volts,
    input,
    layers,
    cutOffHz,
    slopes: cutOffHz === null ? null : slopesAt(cutOffHz, input, frequenciesHz),
  };
}

/** Kinds of part that bend a wave at the levels of a signal. */
const BENT: ReadonlySet<string> = new Set(['diode', 'transistor', 'jfet', 'ota']);
const bends = ({ parts }: Circuit): boolean => parts.some((p) => BENT.has(p.kind));

function cutOffOf(analysis: AcAnalysis, sheet: Sheet): number | null {
  const { halfPowerHz, pairHz } = filterFigures(analysis, 'out', aroundView(sheet.view));
  return halfPowerHz ?? pairHz;
}

/** Order of the steep one; the gentle one has one pole. */
const STEEP = 8;

/** The same harmonics behind Butterworth's low-passes of order one and eight, from their poles. */
function slopesAt(
  cutOffHz: number,
  input: Float64Array,
  frequenciesHz: Float64Array,
): HarmonicsPicture['slopes'] {
  const through = (order: number): Partials => {
    const amplitude = new Float64Array(input.length);
    const phase = new Float64Array(input.length);
    input.forEach((volts, k) => {
      const w = frequenciesHz[k] / cutOffHz;
      let angle = 0;
      for (let n = 0; n < order; n++) {
        const place = (Math.PI * (2 * n + 1 + order)) / (2 * order);
        angle -= Math.atan2(w - Math.sin(place), -Math.cos(place));
      }
      amplitude[k] = volts / Math.sqrt(1 + w ** (2 * order));
      phase[k] = angle;
    });
    return { amplitude, phase };
  };
  return { gentle: through(1), steep: through(STEEP) };
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
