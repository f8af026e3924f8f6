import { ReedError } from '@/core/errors';
import { spaced } from '@/core/response/landmarks';
import { levelsAt } from '@/core/response/levels-at';
import type { Sheet } from '@/core/sheet/schema';
import { exponentialSweep, type SweepPlan } from '@/core/sweep/exponential-sweep';
import type { BoardCircuit } from './board-circuit';

export type View = Pick<Sheet['view'], 'fromHz' | 'toHz'>;

/** A sweep reaches so far beyond what is looked at: its ends rise and fall. */
const BEYOND = 2;
/** Nothing lower is played: loudspeakers and converters have nothing there. */
const LOWEST_HZ = 4;
/** Of the rate: the highest that is played, and the highest that is told. */
const HIGHEST_PLAYED = 0.48;
export const HIGHEST_TOLD = 0.45;
export const POINTS = 81;
/**
 * The sweep that covers a picture, as far as a rate reaches.
 *
 * @throws ReedError `range` where the rate does not reach into it by an octave
 */
export function sweepPlan({ fromHz, toHz }: View, rate: number, seconds: number): SweepPlan {
  const most = HIGHEST_TOLD * rate;
  if (!(Math.min(toHz, most) >= 2 * fromHz))
    throw new ReedError(
      'range',
      `At ${rate} samples a second a sweep reaches ${Math.round(most)} Hz, and the sheet’s picture begins at ${fromHz} Hz: show more of it, or measure with something that reaches higher.`,
    );
  return {
    fromHz: Math.max(LOWEST_HZ, fromHz / BEYOND),
    toHz: Math.min(HIGHEST_PLAYED * rate, toHz * BEYOND),
    seconds,
    rate,
  };
}

/** Where a sweep is read: over the picture, within what was played. */
export function sweptFrequencies({ fromHz, toHz }: View, plan: SweepPlan): Float64Array {
  return spaced(
    Math.max(fromHz, plan.fromHz * 1.5),
    Math.min(toHz, HIGHEST_TOLD * plan.rate),
    POINTS,
  );
}

/** What is played: a sweep at so much of full scale. */
export const sweepSamples = (plan: SweepPlan, level: number): Float64Array =>
  exponentialSweep(plan).map((v) => level * v);

/** Where a board is loudest of what a sweep covers: the tone that its level is checked with. */
export function loudestHz({ circuit, probe }: BoardCircuit, frequenciesHz: Float64Array): number {
  const levels = levelsAt(circuit, probe, frequenciesHz);
  return frequenciesHz[levels.indexOf(Math.max(...levels))];
}
