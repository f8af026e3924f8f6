import { preferredNumbers, type SeriesName } from '@/core/quantity/series';

/** What a value is made of: one part, two of them, or one in series with a trimmer that is set to it. */
export interface Made {
  how: 'single' | 'parallel' | 'series' | 'trimmer';
  /** Values of the parts that it is made of; of a trimmer the whole track. */
  of: readonly number[];
  /** The entry of the stock that each is taken from, where they are. */
  stock?: readonly string[];
}

/** A value that can be had. */
export interface Offer {
  value: number;
  made: Made;
}

/** How two parts may stand for one. */
export const PAIRS = ['none', 'parallel', 'series', 'both'] as const;
export type Pairs = (typeof PAIRS)[number];

/** How a part may be made up: as all of a circuit, or with a trimmer. */
export const MAKINGS = [...PAIRS, 'trimmer'] as const;
export type Making = (typeof MAKINGS)[number];

/** Values of a kind that lie in the drawer, each with how many there are. */
export interface StockItem {
  id: string;
  value: number;
  quantity: number;
}

/** Values closer than this are one. */
const SAME = 1e-9;
/** A pair of which one part does next to nothing is one part. */
const LEAST_SHARE = 1e-3;

/** Every value of a series from one to another, rising. */
export function seriesOffers(series: SeriesName, from: number, to: number): Offer[] {
  const numbers = preferredNumbers(series);
  const offers: Offer[] = [];
  for (let decade = Math.floor(Math.log10(from)); decade <= Math.log10(to); decade++)
    for (const number of numbers) {
      const value = Number(`${number}e${decade}`);
      if (value >= from * (1 - SAME) && value <= to * (1 + SAME))
        offers.push({ value, made: { how: 'single', of: [value] } });
    }
  return offers;
}

/** Every value of the stock from one to another, rising. */
export const stockOffers = (items: readonly StockItem[], from: number, to: number): Offer[] =>
  items
    .filter(({ value, quantity }) => quantity > 0 && value >= from && value <= to)
    .map(({ id, value }): Offer => ({ value, made: { how: 'single', of: [value], stock: [id] } }))
    .sort((a, b) => a.value - b.value);

/** So many pairs are offered for a value. */
const OFFERED = 4;

/**
 * Pairs that come nearest to a value, the nearest first. To every part its best companions are
 * looked up.
 *
 * @param adds which connection adds the values up: capacitors add in parallel, resistors in series
 */
export function pairsNear(
  singles: readonly Offer[],
  pairs: Pairs,
  adds: 'parallel' | 'series',
  value: number,
): Offer[] {
  if (pairs === 'none') return [];
  const offers = (['parallel', 'series'] as const)
    .filter((how) => pairs === 'both' || pairs === how)
    .flatMap((how) =>
      singles.flatMap((a) => {
        const rest = how === adds ? value - a.value : 1 / (1 / value - 1 / a.value);
        if (!(rest > 0) || !Number.isFinite(rest)) return [];
        return around(singles, rest).flatMap((b) =>
          b && b.value <= a.value ? (pairOf(a, b, how, adds) ?? []) : [],
        );
      }),
    );
  return offers
    .sort((a, b) => Math.abs(Math.log(a.value / value)) - Math.abs(Math.log(b.value / value)))
    .slice(0, OFFERED);
}

/** Tracks that trimmers are made with. */
export const USUAL_TRIMMERS: readonly Offer[] = seriesOffers('E3', 10, 4.7e6);

/** What a trimmer reaches, either way from its middle, as a part of the value it is set to. */
const TRIM_REACH = 0.1;
/** It is not used nearer to the ends of its track than this part of it. */
const TRIM_ENDS = 0.1;

/**
 * A fixed part in series with a trimmer, set to a value: the smallest trimmer that reaches far enough
 * either way, with the fixed part that brings it nearest to the middle of its track.
 *
 * @param fixed that can be had, rising
 * @param trimmers the whole tracks that can be had, rising
 * @returns nothing where no trimmer reaches the value
 */
export function withTrimmer(
  fixed: readonly Offer[],
  trimmers: readonly Offer[],
  value: number,
): Offer | undefined {
  for (const trimmer of trimmers) {
    const track = trimmer.value;
    if (track < 2 * TRIM_REACH * value) continue;
    const one = nearestByAmount(fixed, value - track / 2);
    const turn = one ? (value - one.value) / track : -1;
    if (!one || turn < TRIM_ENDS || turn > 1 - TRIM_ENDS) continue;
    const stock = one.made.stock && [...one.made.stock, ...(trimmer.made.stock ?? [])];
    return {
      value,
      made: { how: 'trimmer', of: [one.value, track], ...(stock ? { stock } : {}) },
    };
  }
  return undefined;
}

/** The offer nearest a value by what is between them. */
function nearestByAmount(offers: readonly Offer[], value: number): Offer | undefined {
  const [a, b] = around(offers, value);
  if (!a || !b) return a ?? b;
  return value - a.value < b.value - value ? a : b;
}

function pairOf(
  a: Offer,
  b: Offer,
  how: 'parallel' | 'series',
  adds: 'parallel' | 'series',
): Offer | undefined {
  if (b.value / a.value < LEAST_SHARE) return undefined;
  const value = how === adds ? a.value + b.value : (a.value * b.value) / (a.value + b.value);
  const stock = a.made.stock && b.made.stock && [...a.made.stock, ...b.made.stock];
  return { value, made: { how, of: [a.value, b.value], ...(stock ? { stock } : {}) } };
}

/** The offer nearest a value by ratio. */
export function nearestOffer(offers: readonly Offer[], value: number): Offer | undefined {
  const [a, b] = around(offers, value);
  if (!a || !b) return a ?? b;
  return value / a.value < b.value / value ? a : b;
}

/** The offers on either side of a value: at or below it, and above. */
export function around(
  offers: readonly Offer[],
  value: number,
): [Offer | undefined, Offer | undefined] {
  const at = placeOf(offers, value);
  return [offers[at - 1], offers[at]];
}

/** How many of the offers, which rise, are not above a value. */
function placeOf(offers: readonly Offer[], value: number): number {
  let [low, high] = [0, offers.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (offers[middle].value <= value * (1 + SAME)) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The offers around a part's present one, so many steps to either side. */
export function neighbours(offers: readonly Offer[], value: number, steps: number): Offer[] {
  const at = placeOf(offers, value) - 1;
  return offers
    .slice(Math.max(0, at - steps), at + steps + 1)
    .filter((o) => Math.abs(o.value / value - 1) > SAME);
}
