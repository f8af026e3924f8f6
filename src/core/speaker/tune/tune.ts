import { seededRandom } from '@/core/random';
import { leastSquares } from '../least-squares';
import type { SpeakerDocument, SpeakerTarget } from '../document';
import { SolvedSpeaker } from '../solved-speaker';
import { achieved, type Achieved } from './measure';
import { minimax } from './minimax';
import { LOAD_WEIGHT, scoreOf, wantedOhms, type Box, type Tuned } from './score';
import type { SpeakerTrial, Tried } from './trial';

export interface TuneOptions {
  /** How many points to begin at: the given values, and values scattered around them. */
  starts?: number;
  seed?: number;
  /** How far a value may go from where it began, as a factor. */
  reach?: number;
  /** Limits of single values, by part id, in SI units. */
  limits?: Readonly<Record<string, { least?: number; most?: number }>>;
  /** Called after every start with the best so far; true stops the search there. */
  progress?: (done: number, best: Tuned) => boolean | void;
}

const STARTS = 8;
/** So many of the best are gone on with. */
const FINISHED = 3;
const REACH = 12;
/** How far starts are scattered, as a factor of one standard deviation. */
const SCATTER = 0.45;
const FIRST_STEPS = 8;

/**
 * Bring a speaker to its target on its true circuit, from several starts: by least squares, and from
 * there by making the largest departure least.
 *
 * @returns one result a start, the best first
 * @throws ReedError `document` without a target, `circuit` for a network that cannot be solved
 */
export function tune(trial: SpeakerTrial, options: TuneOptions = {}): Tuned[] {
  const { starts = STARTS, seed = 1, progress } = options;
  const random = seededRandom(seed);
  const given = trial.start();
  const box = limitsOf(trial, options);
  const inside = (v: number, i: number) => Math.min(box.upper[i], Math.max(box.lower[i], v));
  trial.settle(given);
  const found: Tuned[] = [];
  const ranked = () => found.sort((a, b) => a.score - b.score);
  let stopped = false;
  for (let s = 0; s < starts && !stopped; s++) {
    const scattered = s === 0 ? given : given.map((v) => v + SCATTER * normal(random));
    const start = scored(trial, scattered.map(inside));
    const squared = scored(trial, leastSquares({ ...squares(trial), ...box }, start.x).x);
    found.push(minimax(trial, squared, box, { steps: FIRST_STEPS }));
    // What was given is also bettered where it stands: least squares may lead away from it.
    if (s === 0) found.push(minimax(trial, start, box, { steps: FIRST_STEPS }));
    stopped = progress?.(s + 1, ranked()[0]) === true;
  }
  ranked();
  for (let s = 0; s < Math.min(FINISHED, found.length) && !stopped; s++) {
    found[s] = minimax(trial, found[s], box);
    stopped = progress?.(starts + s + 1, found[0]) === true;
  }
  ranked();
  // The best is brought home on what measured impedances make of it there.
  for (let again = 0; again < 2; again++) {
    trial.settle(found[0].x);
    found[0] = minimax(trial, scored(trial, found[0].x), box, { steps: FIRST_STEPS });
  }
  return found;
}

export const scored = (trial: SpeakerTrial, x: Float64Array): Tuned => ({
  x,
  score: scoreOf(trial, trial.try(x)),
});

/** What values a search may reach. */
export function limitsOf(
  trial: SpeakerTrial,
  { reach = REACH, limits }: Pick<TuneOptions, 'reach' | 'limits'> = {},
): Box {
  const given = trial.start();
  const own = trial.free.map((p) => limits?.[p.id] ?? {});
  return {
    lower: given.map((v, i) => Math.max(v - Math.log(reach), Math.log(own[i].least ?? 1e-30))),
    upper: given.map((v, i) => Math.min(v + Math.log(reach), Math.log(own[i].most ?? 1e30))),
  };
}

/** Departures in units of the band that was asked for, and what the load falls short by. */
function squares(trial: SpeakerTrial) {
  const { withinDb } = trial.document.target!;
  const points = trial.bandHz.length;
  const least = wantedOhms(trial);
  const { followed } = trial;
  const residualsOf = ({ levels, ohms, ways }: Tried) => {
    const r = new Float64Array(points * (1 + followed.length) + ohms.length);
    followed.forEach((way, w) => {
      const from = points + ohms.length + w * points;
      for (let k = 0; k < points; k++) r[from + k] = ways[w][k] / way.within;
    });
    for (let k = 0; k < points; k++) r[k] = levels[k] / withinDb;
    for (let k = 0; k < ohms.length; k++)
      r[points + k] = ohms[k] < least ? LOAD_WEIGHT * Math.log(least / ohms[k]) : 0;
    return r;
  };
  return {
    residuals: (x: Float64Array) => residualsOf(trial.try(x)),
    at: (x: Float64Array) => {
      const { tried, levels, logOhms, ways } = trial.slopes(x);
      const columns = levels.map((column, i) => {
        const c = new Float64Array(points * (1 + followed.length) + tried.ohms.length);
        followed.forEach((way, w) => {
          const from = points + tried.ohms.length + w * points;
          for (let k = 0; k < points; k++) c[from + k] = ways[w][i][k] / way.within;
        });
        for (let k = 0; k < points; k++) c[k] = column[k] / withinDb;
        for (let k = 0; k < tried.ohms.length; k++)
          c[points + k] = tried.ohms[k] < least ? -LOAD_WEIGHT * logOhms[i][k] : 0;
        return c;
      });
      return { residuals: residualsOf(tried), columns };
    },
  };
}

/** Evenly distributed numbers made normal (G. E. P. Box, M. E. Muller, 1958). */
const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** What a document achieves of its target. */
export const achievedBy = (document: SpeakerDocument, loaded = true): Achieved =>
  achieved(new SolvedSpeaker(document, undefined, loaded), document.target as SpeakerTarget);
