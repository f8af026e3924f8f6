import { DEGREES_PER_DB } from '@/core/response/decibels';
import { squares } from './belief';
import { likeliest } from './likely';
import { movables } from './movable';
import { evenNoise, noiseOf, roughness, type Noise } from './noise';
import { Prediction } from './prediction';
import { comparable, unsolved, type Question } from './question';

/** How far a value may be off, one standard deviation, where only the noise is asked for. */
const ANYWHERE = 0.5;
/** What a take is thought to be off by at first, dB. */
const AT_FIRST_DB = 0.1;

/**
 * The noise of a take: what is left when every value may be anything, or how far points lie off their
 * neighbours, whichever is less; a circuit that was wired wrong leaves much of the first, and one of
 * sharp bends much of the second.
 */
export function estimateNoise(known: Omit<Question, 'noise'>): Noise {
  const { probe, take } = known;
  const points = take.frequenciesHz.length;
  const phases = take.phaseDegrees !== undefined;
  const { inDb, x } = freest(known);
  const misfit = inDb.misfit(x);
  if (!misfit) throw unsolved(probe);
  const part = (from: number, scale: number) => {
    const own = misfit.subarray(from, from + points);
    const rough = roughness(own);
    const free = Math.max(1, points - Math.min(x.length + 1, points / 2));
    const settled = Math.min(squares(own), rough ** 2 * free);
    return { squares: settled * scale ** 2, free };
  };
  return noiseOf(points, part(0, 1), phases ? part(points, DEGREES_PER_DB) : undefined);
}

/**
 * By how much a take stands above what its circuit gives, dB, whichever parts are off: what the level
 * of the source was, or the gain of the meter.
 *
 * @throws ReedError `circuit` where nothing arrives at the probe
 */
export function levelOfTake(known: Omit<Question, 'noise'>): number {
  const { inDb, x } = freest(known);
  if (!inDb.misfit(x)) throw unsolved(known.probe);
  return inDb.gainDb(x);
}

/** The values that come closest to a take where each may be anything, and what is left in dB. */
function freest({ circuit, probe, take, rules, fixed }: Omit<Question, 'noise'>): {
  inDb: Prediction;
  x: Float64Array;
} {
  const points = take.frequenciesHz.length;
  const phases = take.phaseDegrees !== undefined;
  const analysis = comparable(circuit);
  const list = movables(analysis, rules, fixed);
  const inDb = new Prediction(analysis, probe, list, take, evenNoise(points, 1, phases));
  const start = new Float64Array(list.length);
  const found = likeliest(
    inDb.against(take, evenNoise(points, AT_FIRST_DB, phases)),
    list.map(() => ANYWHERE),
    start,
  );
  return { inDb, x: found?.x ?? start };
}
