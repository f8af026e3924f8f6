import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Rules } from '@/core/spread/rules';
import type { Noise } from './noise';

/** A take of a circuit, and what is known of both. */
export interface View {
  circuit: Circuit;
  probe: string;
  take: MeasuredCurve;
  noise: Noise;
  /** How well its level is known, dB, one standard deviation: Infinity where nobody knows it. */
  gainSdDb: number;
  rules: Rules;
  /** Parts that are not of the board. */
  fixed: ReadonlySet<string>;
}

/** Takes of one board: the first is that which is asked about. */
export type Question = readonly View[];

/** What a solution may lose here: a ten-millionth of a decibel. */
const NEGLIGIBLE = 1e-8;

/** A circuit as it is held against a take. */
export const comparable = (circuit: Circuit): AcAnalysis =>
  new AcAnalysis(circuit, undefined, NEGLIGIBLE);

/** The question put to fewer points of each take: enough for a first look. */
export const roughly = (question: Question, most: number): Question =>
  question.map((view) => {
    const places = evenly(view.take.frequenciesHz.length, most);
    const { levelDb, phaseDegrees } = view.noise;
    const some = (values: Float64Array) => Float64Array.from(places, (k) => values[k]);
    return {
      ...view,
      take: thinned(view.take, most),
      noise: {
        levelDb: some(levelDb),
        ...(phaseDegrees ? { phaseDegrees: some(phaseDegrees) } : {}),
      },
    };
  });

/** A take of at most so many points, over the same span. */
export function thinned(take: MeasuredCurve, most: number): MeasuredCurve {
  const places = evenly(take.frequenciesHz.length, most);
  const some = (values: readonly number[]) => places.map((k) => values[k]);
  return {
    frequenciesHz: some(take.frequenciesHz),
    levelDb: some(take.levelDb),
    ...(take.phaseDegrees ? { phaseDegrees: some(take.phaseDegrees) } : {}),
    ...(take.noiseDb ? { noiseDb: some(take.noiseDb) } : {}),
  };
}

/** Places from the first to the last of a list, at most so many. */
function evenly(count: number, most: number): number[] {
  const kept = Math.min(count, most);
  return Array.from({ length: kept }, (_, k) =>
    kept === count ? k : Math.round((k * (count - 1)) / (kept - 1)),
  );
}

/** Nothing arrives where a take was taken. */
export const unsolved = (probe: string): ReedError =>
  new ReedError('circuit', `Nothing arrives at “${probe}”: probe a net that the source reaches.`, {
    net: probe,
  });
