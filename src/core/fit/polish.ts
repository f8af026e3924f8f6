import { costOf, costOfSum } from './cost';
import { around, neighbours, type Offer } from './offers';
import type { FitPart } from './problem';
import { solveExact } from './solve-exact';
import type { Trial } from './trial';
import type { WantedLevels } from './wanted';

export interface Polished {
  offers: readonly Offer[];
  cost: number;
}

/** Steps along the list of values that a part takes at once, and how many parts move together. */
const STEPS = 3;
/** Of the moves that promise most, so many are tried on the circuit. */
const TRIED = 12;
const MOST_ROUNDS = 12;
/** A second part is worth its place where it takes away this part of the error. */
const PAIR_PAYS = 0.15;

interface Move {
  changes: readonly (readonly [part: number, offer: Offer])[];
  promised: number;
}

export interface PolishOptions {
  parts: readonly FitPart[];
  enough?: (offers: readonly Offer[]) => boolean;
}

/**
 * Moves parts, alone and two together, to neighbouring values as long as that lowers the error of
 * the true circuit. What a move promises is reckoned from the slopes; the best are tried.
 */
export function polish(
  trial: Trial,
  wanted: WantedLevels,
  start: readonly Offer[],
  { parts, enough = () => true }: PolishOptions,
): Polished | undefined {
  let offers = start;
  let errors = errorsOf(trial, wanted, offers);
  if (!errors) return undefined;
  let cost = costOf(errors);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    trial.set(offers.map((o) => o.value));
    const slopes = trial.slopes(
      wanted,
      parts.map((_, i) => i),
    );
    const moves = promising(offers, errors, slopes, parts, cost);
    const better = firstBetter(trial, wanted, offers, moves, cost, enough);
    if (!better) break;
    ({ offers, errors, cost } = better);
  }
  return { offers, cost };
}

const errorsOf = (trial: Trial, wanted: WantedLevels, offers: readonly Offer[]) =>
  trial.softError(
    offers.map((o) => o.value),
    wanted,
  );

const moved = (offers: readonly Offer[], { changes }: Pick<Move, 'changes'>): Offer[] => {
  const next = [...offers];
  for (const [part, offer] of changes) next[part] = offer;
  return next;
};

/** The best of the moves that are tried; nothing where none lowers the cost. */
function firstBetter(
  trial: Trial,
  wanted: WantedLevels,
  offers: readonly Offer[],
  moves: readonly Move[],
  cost: number,
  enough: (offers: readonly Offer[]) => boolean,
) {
  let best: { offers: readonly Offer[]; errors: Float64Array; cost: number } | undefined;
  for (const move of moves) {
    const next = moved(offers, move);
    if (!enough(next)) continue;
    const errors = errorsOf(trial, wanted, next);
    if (!errors) continue;
    const own = costOf(errors);
    if (own < (best?.cost ?? cost) * (1 - 1e-9)) best = { offers: next, errors, cost: own };
  }
  return best;
}

/** Moves of one part or two, by what they promise. */
function promising(
  offers: readonly Offer[],
  errors: Float64Array,
  slopes: readonly Float64Array[],
  parts: readonly FitPart[],
  cost: number,
): Move[] {
  const single = parts.flatMap(({ singles }, i) =>
    neighbours(singles, offers[i].value, STEPS).map((offer) => {
      const by = Math.log(offer.value / offers[i].value);
      return { change: [i, offer] as const, rises: slopes[i].map((s) => by * s) };
    }),
  );
  const best = new Best();
  single.forEach((a, i) => {
    best.weigh([a.change], costOfSum(errors, a.rises));
    for (let j = i + 1; j < single.length; j++) {
      const b = single[j];
      if (b.change[0] === a.change[0]) continue;
      const promised = costOfSum(errors, a.rises, b.rises);
      if (promised < best.bound) best.weigh([a.change, b.change], promised);
    }
  });
  return best.moves.filter(({ promised }) => promised < cost * HOPEFUL);
}

/** A move that promises no more than this part of the present cost may still turn out well. */
const HOPEFUL = 1.3;

/** The most promising moves so far. */
class Best {
  readonly moves: Move[] = [];
  /** What a move must promise less than to be among them. */
  bound = Infinity;

  weigh(changes: Move['changes'], promised: number): void {
    if (!(promised < this.bound)) return;
    const at = this.moves.findIndex((m) => m.promised > promised);
    this.moves.splice(at < 0 ? this.moves.length : at, 0, { changes, promised });
    if (this.moves.length > TRIED) this.moves.pop();
    if (this.moves.length === TRIED) this.bound = this.moves[TRIED - 1].promised;
  }
}

/** The same with its trimmers set as well as they can be for the parts that were chosen. */
export function withTrimmersSet(
  trial: Trial,
  wanted: WantedLevels,
  start: Polished,
  { parts, enough = () => true }: PolishOptions,
): Polished {
  const free = parts.flatMap(({ trimmed }, i) => (trimmed ? [i] : []));
  if (free.length === 0) return start;
  const values = start.offers.map((o) => o.value);
  const exact = solveExact(trial, wanted, values, free, false);
  if (!exact) return start;
  const offers = start.offers.map((offer, i) =>
    free.includes(i) ? (parts[i].pairsNear!(exact.values[i])[0] ?? offer) : offer,
  );
  const errors = errorsOf(trial, wanted, offers);
  if (!errors || !enough(offers)) return start;
  const cost = costOf(errors);
  return cost < start.cost ? { offers, cost } : start;
}

/** Two parts where one would do are taken back as long as that costs no more than this, dB. */
const PLAIN_DB = 0.02;

/**
 * Puts two parts in the place of one where that pays. The values that the best single parts leave to
 * be wished for are solved for again exactly, the resistors if they will do, and each becomes the
 * nearest pair; then every pair that hardly matters goes back to a single part, the least needed
 * first.
 */
export function withPairs(
  trial: Trial,
  wanted: WantedLevels,
  start: Polished,
  { parts, enough = () => true }: PolishOptions,
): Polished {
  const values = start.offers.map((o) => o.value);
  const paired = parts.flatMap(({ pairsNear }, i) => (pairsNear ? [i] : []));
  const resistors = paired.filter((i) => parts[i].field === 'ohms');
  let best = start;
  for (const free of [resistors, paired]) {
    const exact = solveExact(trial, wanted, values, free, false);
    if (!exact) continue;
    const offers = start.offers.map((offer, i) =>
      free.includes(i) ? (parts[i].pairsNear!(exact.values[i])[0] ?? offer) : offer,
    );
    const errors = errorsOf(trial, wanted, offers);
    if (!errors || !enough(offers)) continue;
    const cost = costOf(errors);
    if (cost < best.cost * (1 - PAIR_PAYS)) best = { offers, cost };
    if (best.cost < PLAIN_DB) break;
  }
  return best === start ? start : plainer(trial, wanted, best, parts);
}

/** The same with as few pairs as will do. */
function plainer(
  trial: Trial,
  wanted: WantedLevels,
  { offers: all, cost: least }: Polished,
  parts: readonly FitPart[],
): Polished {
  let offers = all;
  let cost = least;
  for (;;) {
    let next: Polished | undefined;
    for (let i = 0; i < parts.length; i++) {
      if (offers[i].made.how === 'single' || parts[i].trimmed) continue;
      for (const single of around(parts[i].singles, offers[i].value)) {
        if (!single) continue;
        const tried = offers.map((o, k) => (k === i ? single : o));
        const errors = errorsOf(trial, wanted, tried);
        const own = errors ? costOf(errors) : Infinity;
        if (own < (next?.cost ?? least + PLAIN_DB)) next = { offers: tried, cost: own };
      }
    }
    if (!next) return { offers, cost };
    ({ offers, cost } = next);
  }
}
