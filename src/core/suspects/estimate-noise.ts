import { DEGREES_PER_DB } from '@/core/response/decibels';
import { squares } from './belief';
import { likeliest } from './likely';
import {
  evenNoise,
  measuredNoise,
  noiseOf,
  roughness,
  scaledNoise,
  type LeftOver,
  type Noise,
} from './noise';
import { predictionOf, type Prediction } from './prediction';
import { comparable, unsolved, type View } from './question';

/** How far a value may be off, one standard deviation, where only the noise is asked for. */
const ANYWHERE = 0.5;
/** What a take is thought to be off by at first, dB. */
const AT_FIRST_DB = 0.1;

/** What can be told of a take whichever parts are off. */
export interface Plain {
  noise: Noise;
  /**
   * By how much it stands above what its circuit gives, dB: what the level of the source was, or the
   * gain of the meter.
   */
  gainDb: number;
}

/**
 * The noise of a take is what is left when every value may be anything, or how far points lie off their
 * neighbours, whichever is less; a circuit that was wired wrong leaves much of the first, and one of
 * sharp bends much of the second.
 *
 * @throws ReedError `circuit` where nothing arrives at the probe
 */
export function plainlyOf(known: Omit<View, 'noise'>): Plain {
  const { probe, take } = known;
  const points = take.frequenciesHz.length;
  const phases = take.phaseDegrees !== undefined;
  const measured = take.noiseDb && measuredNoise(take.noiseDb, phases);
  const { inDb, x } = freest(known, measured ?? evenNoise(points, AT_FIRST_DB, phases));
  const misfit = inDb.misfit(x);
  if (!misfit) throw unsolved(probe);
  // Where it was measured what is left is counted in units of it, so that drowned points do not speak for all.
  const left = (from: number, scale: number, units?: Float64Array): LeftOver => {
    const own = misfit
      .subarray(from, from + points)
      .map((v, k) => (v * scale) / (units ? units[k] : 1));
    const rough = roughness(own);
    const free = Math.max(1, points - Math.min(x.length + 1, points / 2));
    return { squares: Math.min(squares(own), rough ** 2 * free), free };
  };
  const level = left(0, 1, measured?.levelDb);
  const phase = phases ? left(points, DEGREES_PER_DB, measured?.phaseDegrees) : undefined;
  return {
    noise: measured ? scaledNoise(measured, level, phase) : noiseOf(points, level, phase),
    gainDb: inDb.gainDb(x),
  };
}

/** The values that come closest to a take where each may be anything, and what is left in dB. */
function freest(known: Omit<View, 'noise'>, atFirst: Noise): { inDb: Prediction; x: Float64Array } {
  const { circuit, take } = known;
  const unit = evenNoise(take.frequenciesHz.length, 1, take.phaseDegrees !== undefined);
  const inDb = predictionOf([{ ...known, noise: unit }], [comparable(circuit)]);
  const start = new Float64Array(inDb.movables.length);
  const found = likeliest(
    inDb.against([{ take, noise: atFirst }]),
    inDb.movables.map(() => ANYWHERE),
    start,
  );
  return { inDb, x: found?.x ?? start };
}
