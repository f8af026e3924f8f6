import { ReedError } from '@/core/errors';
import { preferredNumbers, type SeriesName } from '@/core/quantity/series';
import type { SpeakerTrial, TunedKind } from './trial';
import { mainValue } from './trial';
import { minimax } from './minimax';
import { scoreOf, type Box, type Tuned } from './score';
import { scored } from './tune';

/** Parts of one value that are at hand. */
export interface Pieces {
  /** In SI units. */
  value: number;
  quantity: number;
}

/** What values there are of each kind; a kind that is not said keeps exact values. */
export interface Drawer {
  series?: Partial<Record<TunedKind, SeriesName>>;
  /** What is at hand of a kind, in place of a series: no value is taken more often than it is there. */
  pieces?: Partial<Record<TunedKind, readonly Pieces[]>>;
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
 * @throws ReedError `design` where fewer parts of a kind are at hand than are needed
 */
export function snap(
  trial: SpeakerTrial,
  from: Tuned,
  drawer: Drawer,
  box: Box,
  width = BEAM,
): Tuned {
  const kinds = trial.free.map((part) => mainValue(part).kind);
  const ladders = kinds.map((kind, i) => ladderOf(kind, drawer, box, i));
  checkEnough(kinds, drawer);
  const isThere = enough(kinds, drawer);
  const order = ladders
    .flatMap((ladder, i) => (ladder ? [i] : []))
    .sort((a, b) => ladders[a]!.length - ladders[b]!.length);
  if (order.length === 0) return from;
  let beam: Tuned[] = [from];
  const fixed: number[] = [];
  for (const i of order) {
    fixed.push(i);
    const next = beam.flatMap(({ x }) =>
      nearestFirst(ladders[i]!, x[i])
        .map((value) => withAt(x, i, value))
        .filter((start) => isThere(start, fixed))
        .slice(0, NEIGHBOURS)
        .map((start) => retuned(trial, start, fixed, box)),
    );
    beam = next.sort((a, b) => a.score - b.score).slice(0, width);
  }
  return polished(trial, beam, ladders, order, isThere);
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
  isThere: IsThere,
): Tuned {
  const results = from.map((start) => {
    let best = start;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      let found = best;
      const consider = (x: Float64Array) => {
        if (!isThere(x, order)) return;
        const score = scoreOf(trial, trial.try(x));
        if (score < found.score) found = { x, score };
      };
      const singles = order.flatMap((i) =>
        neighboursIn(ladders[i]!, best.x[i]).map((value) => ({ i, value })),
      );
      singles.forEach((a, n) => {
        const one = withAt(best.x, a.i, a.value);
        consider(one);
        if (order.length > MOST_PAIRED) return;
        for (const b of singles.slice(n + 1)) {
          if (b.i === a.i) continue;
          consider(withAt(one, b.i, b.value));
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
  { series, pieces }: Drawer,
  { lower, upper }: Box,
  i: number,
): Float64Array | undefined {
  const own = pieces?.[kind];
  const name = own ? undefined : series?.[kind];
  if (!name && !own) return undefined;
  const all = new Set(own?.map(({ value }) => value));
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

/** Whether some parts of a set of values are there as often as it takes them. */
type IsThere = (x: Float64Array, parts: readonly number[]) => boolean;

function enough(kinds: readonly TunedKind[], { pieces = {} }: Drawer): IsThere {
  const keyOf = (kind: TunedKind, log: number) => `${kind} ${log.toFixed(9)}`;
  const there = new Map<string, number>();
  for (const [kind, its] of Object.entries(pieces) as [TunedKind, readonly Pieces[]][])
    for (const { value, quantity } of its) {
      const key = keyOf(kind, Math.log(value));
      there.set(key, (there.get(key) ?? 0) + quantity);
    }
  return (x, parts) => {
    const taken = new Map<string, number>();
    return parts.every((i) => {
      if (!pieces[kinds[i]]) return true;
      const key = keyOf(kinds[i], x[i]);
      const count = (taken.get(key) ?? 0) + 1;
      taken.set(key, count);
      return count <= (there.get(key) ?? 0);
    });
  };
}

const NOUNS: Readonly<Record<TunedKind, string>> = {
  resistor: 'resistors',
  capacitor: 'capacitors',
  inductor: 'coils',
};

function checkEnough(kinds: readonly TunedKind[], { pieces = {} }: Drawer): void {
  for (const [kind, its] of Object.entries(pieces) as [TunedKind, readonly Pieces[]][]) {
    const needed = kinds.filter((k) => k === kind).length;
    const there = its.reduce((sum, { quantity }) => sum + quantity, 0);
    if (there < needed)
      throw new ReedError(
        'design',
        `${needed} ${NOUNS[kind]} are needed, and ${there} lie in the drawer: put more in, or end in values of a series.`,
      );
  }
}

const withAt = (x: Float64Array, i: number, value: number): Float64Array => {
  const y = Float64Array.from(x);
  y[i] = value;
  return y;
};

const nearestFirst = (ladder: Float64Array, x: number): number[] =>
  [...ladder].sort((a, b) => Math.abs(a - x) - Math.abs(b - x));

function neighboursIn(ladder: Float64Array, x: number): number[] {
  const at = ladder.findIndex((v) => Math.abs(v - x) < 1e-9);
  return [ladder[at - 1], ladder[at + 1]].filter((v) => v !== undefined);
}
