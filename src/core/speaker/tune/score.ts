import type { SpeakerTrial, Tried } from './trial';

/** Values that a search ended with. */
export interface Tuned {
  /** Logarithms of the values of the free parts, in their order. */
  x: Float64Array;
  /** What is left, in units of what was asked for: below one where everything is held. */
  score: number;
}

/** What logarithms a search may reach. */
export interface Box {
  lower: Float64Array;
  upper: Float64Array;
}

/** Loads are kept above what was asked for by this part, so that a look between the points finds none below. */
const MARGIN = 0.002;
/** How heavily a load that is too low counts: a hundredth below is as bad as so many hundredths of the band. */
export const LOAD_WEIGHT = 60;

export const wantedOhms = (trial: SpeakerTrial): number =>
  trial.document.target!.leastOhms * (1 + MARGIN);

/** The largest departure in units of what was asked for, and what a load too low adds to it. */
export function scoreOf(trial: SpeakerTrial, { levels, ohms, ways }: Tried): number {
  const most = levels.reduce((a, l) => Math.max(a, Math.abs(l)), 0);
  const least = ohms.reduce((a, z) => Math.min(a, z), Infinity);
  const short = Math.max(0, Math.log(wantedOhms(trial) / least));
  const apart = trial.followed.map(
    ({ within }, w) => ways[w].reduce((a, l) => Math.max(a, Math.abs(l)), 0) / within,
  );
  return Math.max(most / trial.document.target!.withinDb, ...apart) + LOAD_WEIGHT * short;
}
