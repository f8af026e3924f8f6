import { seededRandom } from '@/core/random';
import { costOf } from './cost';
import { around, type Offer } from './offers';
import type { FitPart } from './problem';
import { solveExact } from './solve-exact';
import type { Trial } from './trial';
import type { WantedLevels } from './wanted';

/** What the search starts from: values that give the wanted level on the true circuit. */
export interface Base {
  values: Float64Array;
  errors: Float64Array;
  /** Whether only the shape of the level is fitted, because nothing can be done about its height. */
  even: boolean;
}

/** Real values for the parts of one block, and by how much they raise the level, by frequency. */
export interface BlockChoice {
  offers: readonly Offer[];
  rises: Float64Array;
  cost: number;
}

/** Values are looked for within this factor of the exact ones. */
const WINDOW = 5;
/** So many choices of the parts that come in few values. */
const MOST_COMBINATIONS = 130;
/** So many ways to round the others are followed, and so many tried of each combination. */
const BEAM = 24;
const TRIED = 16;
const KEPT = 50;

/**
 * Real values for the parts of one block, the rest of the circuit at its exact ones: those that come
 * in few values are chosen first (capacitors), the others solved again exactly around each choice,
 * then rounded up and down. The best are kept.
 */
export function blockChoices(
  trial: Trial,
  wanted: WantedLevels,
  base: Base,
  parts: readonly FitPart[],
  block: readonly number[],
): BlockChoice[] {
  const { chosen, solved } = partsByScarcity(parts, block);
  const found: BlockChoice[] = [];
  for (const combination of combinations(parts, base.values, chosen)) {
    const start = Float64Array.from(base.values);
    chosen.forEach((i, k) => (start[i] = combination[k].value));
    const scale = Math.exp(
      chosen.reduce((sum, i) => sum + Math.log(start[i] / base.values[i]), 0) /
        Math.max(1, chosen.length),
    );
    for (const i of solved)
      if (parts[i].field !== parts[chosen[0]]?.field) start[i] = base.values[i] / scale;
    const exact = solveExact(trial, wanted, start, solved, base.even);
    if (!exact) continue;
    for (const rounded of roundings(exact, parts, solved)) {
      const values = Float64Array.from(exact.values);
      solved.forEach((i, k) => (values[i] = rounded[k].value));
      const errors = trial.softError(values, wanted);
      if (!errors) continue;
      const offers = block.map((i) => rounded[solved.indexOf(i)] ?? combination[chosen.indexOf(i)]);
      found.push({
        offers,
        rises: errors.map((e, k) => e - base.errors[k]),
        cost: costOf(errors),
      });
    }
  }
  return found.sort((a, b) => a.cost - b.cost).slice(0, KEPT);
}

/** Capacitors before coils before resistors: whoever comes in the finest steps is solved for. */
function partsByScarcity(parts: readonly FitPart[], block: readonly number[]) {
  const fields = ['ohms', 'henries', 'farads'];
  const field = fields.find((f) => block.some((i) => parts[i].field === f));
  const solved = block.filter((i) => parts[i].field === field);
  const chosen = block.filter((i) => parts[i].field !== field);
  // Of parts of one kind alone, the first is chosen and the others follow.
  return chosen.length === 0 && solved.length > 1
    ? { chosen: solved.slice(0, 1), solved: solved.slice(1) }
    : { chosen, solved };
}

function combinations(
  parts: readonly FitPart[],
  base: Float64Array,
  chosen: readonly number[],
): Offer[][] {
  const lists = chosen.map((i) => {
    const near = parts[i].singles.filter(
      ({ value }) => value >= base[i] / WINDOW && value <= base[i] * WINDOW,
    );
    return near.length > 0 ? near : nearest(parts[i].singles, base[i]);
  });
  const count = lists.reduce((n, list) => n * list.length, 1);
  if (count <= MOST_COMBINATIONS)
    return lists.reduce<Offer[][]>(
      (all, list) => all.flatMap((row) => list.map((offer) => [...row, offer])),
      [[]],
    );
  // Too many: by lot, all of them moved by about the same factor.
  const random = seededRandom(7);
  const seen = new Map<string, Offer[]>();
  for (let n = 0; n < 4 * MOST_COMBINATIONS && seen.size < MOST_COMBINATIONS; n++) {
    const scale = WINDOW ** ((2 * random() - 1) * 0.9);
    const row = chosen.map((i, k) => {
      const [a, b] = around(lists[k], base[i] * (n === 0 ? 1 : scale));
      return (random() < 0.5 ? (a ?? b) : (b ?? a))!;
    });
    seen.set(row.map((o) => o.value).join(' '), row);
  }
  return [...seen.values()];
}

const nearest = (offers: readonly Offer[], value: number): Offer[] =>
  around(offers, value).filter((o) => o !== undefined);

/** Ways to round the solved values, up or down each, those first that promise the least error. */
function roundings(
  {
    values,
    errors,
    slopes,
  }: { values: Float64Array; errors: Float64Array; slopes: Float64Array[] },
  parts: readonly FitPart[],
  solved: readonly number[],
): Offer[][] {
  interface Row {
    offers: Offer[];
    errors: Float64Array;
    cost: number;
  }
  let rows: Row[] = [{ offers: [], errors, cost: 0 }];
  solved.forEach((i, k) => {
    rows = rows
      .flatMap(({ offers, errors: sofar }) =>
        nearest(parts[i].singles, values[i]).map((offer): Row => {
          const by = Math.log(offer.value / values[i]);
          const next = sofar.map((e, f) => e + by * slopes[k][f]);
          return { offers: [...offers, offer], errors: next, cost: costOf(next) };
        }),
      )
      .sort((a, b) => a.cost - b.cost)
      .slice(0, BEAM);
  });
  return rows.slice(0, TRIED).map((row) => row.offers);
}
