import { preferredNumbers, type SeriesName } from '@/core/quantity/series';
import type { SpeakerTrial, TunedKind } from './trial';
import { mainValue } from './trial';
import { minimax } from './minimax';
import { scoreOf, type Box, type Tuned } from './score';
import { scored } from './tune';

/** What values there are of each kind; a kind that is not said keeps exact values. */
export interface Drawer {
  series?: Partial<Record<TunedKind, SeriesName>>;
  /** Values that are there beside or instead of a series, by kind, in SI units. */
  values?: Partial<Record<TunedKind, readonly number[]>>;
}

const BEAM = 3;
/** Neighbours of an exact value that are tried for it. */
const NEIGHBOURS = 2;
const MOST_ROUNDS = 12;
/** Of more parts than this single ones are moved only: pairs grow with their square. */
const MOST_PAIRED = 14;
/** Steps in which what is still free follows what was set. */
const STEPS = 5;

/**
 * Values that there are, for values that were found: part by part, the coarsest series first, each is
 * set to one of its neighbours and all that are still free are tuned again; then single parts and pairs
 * of parts are moved to their neighbours as long as that mends something.
 *
 * @param from exact values to begin at
 * @param width how many sets of values are followed at once
 */
export function snap(
  trial: SpeakerTrial,
  from: Tuned,
  drawer: Drawer,
  box: Box,
  width = BEAM,
): Tuned {
  const ladders = trial.free.map((part, i) => ladderOf(mainValue(part).kind, drawer, box, i));
  const order = ladders
    .flatMap((ladder, i) => (ladder ? [i] : []))
    .sort((a, b) => ladders[a]!.length - ladders[b]!.length);
  if (order.length === 0) return from;
  let beam: Tuned[] = [from];
  const fixed: number[] = [];
  for (const i of order) {
    fixed.push(i);
    const next = beam.flatMap(({ x }) =>
      nearestIn(ladders[i]!, x[i], NEIGHBOURS).map((value) => {
        const start = Float64Array.from(x);
        start[i] = value;
        return retuned(trial, start, fixed, box);
      }),
    );
    beam = next.sort((a, b) => a.score - b.score).slice(0, width);
  }
  return polished(trial, beam, ladders, order);
}

/** Tune what is not fixed. */
function retuned(trial: SpeakerTrial, x: Float64Array, fixed: readonly number[], box: Box): Tuned {
  const start = scored(trial, x);
  if (fixed.length === trial.free.length) return start;
  const lower = Float64Array.from(box.lower);
  const upper = Float64Array.from(box.upper);
  for (const i of fixed) lower[i] = upper[i] = x[i];
  return minimax(trial, start, { lower, upper }, { steps: STEPS });
}

/** Move single parts and pairs to neighbouring values as long as that mends something. */
function polished(
  trial: SpeakerTrial,
  from: readonly Tuned[],
  ladders: readonly (Float64Array | undefined)[],
  order: readonly number[],
): Tuned {
  const results = from.map((start) => {
    let best = start;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      let found = best;
      const consider = (x: Float64Array) => {
        const score = scoreOf(trial, trial.try(x));
        if (score < found.score) found = { x, score };
      };
      const singles = order.flatMap((i) =>
        neighboursIn(ladders[i]!, best.x[i]).map((value) => ({ i, value })),
      );
      singles.forEach((a, n) => {
        const one = Float64Array.from(best.x);
        one[a.i] = a.value;
        consider(one);
        if (order.length > MOST_PAIRED) return;
        for (const b of singles.slice(n + 1)) {
          if (b.i === a.i) continue;
          const two = Float64Array.from(one);
          two[b.i] = b.value;
          consider(two);
        }
      });
      if (found === best) break;
      best = found;
    }
    return best;
  });
  return results.reduce((a, b) => (b.score < a.score ? b : a));
}

/** Logarithms of all values of a kind between its limits; undefined where any value will do. */
function ladderOf(
  kind: TunedKind,
  { series, values }: Drawer,
  { lower, upper }: Box,
  i: number,
): Float64Array | undefined {
  const name = series?.[kind];
  const own = values?.[kind];
  if (!name && !own) return undefined;
  const all = new Set(own);
  // The neighbours outside are among them, so that every value has two.
  const [first, last] = [lower[i], upper[i]].map((v) => Math.floor(v / Math.LN10));
  if (name)
    for (let decade = first; decade <= last; decade++)
      for (const number of preferredNumbers(name)) all.add(Number(`${number}e${decade}`));
  return Float64Array.from(
    [...all].sort((a, b) => a - b),
    Math.log,
  );
}

const nearestIn = (ladder: Float64Array, x: number, count: number): number[] =>
  [...ladder].sort((a, b) => Math.abs(a - x) - Math.abs(b - x)).slice(0, count);

function neighboursIn(ladder: Float64Array, x: number): number[] {
  const at = ladder.findIndex((v) => Math.abs(v - x) < 1e-9);
  return [ladder[at - 1], ladder[at + 1]].filter((v) => v !== undefined);
}
