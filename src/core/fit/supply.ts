import type { Circuit, Part } from '@/core/circuit/schema';
import type { SeriesName } from '@/core/quantity/series';
import {
  pairsNear,
  seriesOffers,
  stockOffers,
  USUAL_TRIMMERS,
  withTrimmer,
  type Making,
  type Offer,
  type Pairs,
  type StockItem,
} from './offers';
import type { FitPart } from './problem';

/** What can be bought: each of the three from. */
export interface Supply {
  resistors: SeriesName | 'exact';
  capacitors: SeriesName | 'exact';
  inductors: SeriesName | 'exact';
  /** What lies in the drawer, by kind of part; where a kind is named, nothing else is taken. */
  stock?: Readonly<Partial<Record<ChosenKind, readonly StockItem[]>>>;
  pairs?: Pairs;
  /** Trimmers of the drawer; without, those that can be bought. */
  trimmers?: readonly StockItem[];
  limits?: Readonly<Partial<Record<ChosenKind, readonly [least: number, greatest: number]>>>;
}

/** The kinds whose values are chosen, with what is theirs. */
const KINDS = {
  resistor: { field: 'ohms', from: 'resistors', adds: 'series' },
  capacitor: { field: 'farads', from: 'capacitors', adds: 'parallel' },
  inductor: { field: 'henries', from: 'inductors', adds: 'series' },
} as const;
export type ChosenKind = keyof typeof KINDS;

/** The field of a circuit's part that has the value. */
export const FIELDS: Readonly<Record<ChosenKind, string>> = {
  resistor: KINDS.resistor.field,
  capacitor: KINDS.capacitor.field,
  inductor: KINDS.inductor.field,
};

export const isChosenKind = (kind: string): kind is ChosenKind => kind in KINDS;

/** A part that is to be chosen. */
export interface AskedPart {
  id: string;
  kind: ChosenKind;
  exact: number;
  /** How far from its exact value it may lie, as a factor; by default a decade either way. */
  reach?: number;
  /** How it may be made up, where that is other than for all parts. */
  making?: Making;
}

/** A part is looked for within this factor of its exact value; its companions further. */
const REACH = 12;
const COMPANIONS = 40;
/** Where any value can be had, it is chosen in steps of this part of it. */
const FINE = 2e-3;

/**
 * A part of a circuit as it can be chosen.
 *
 * @returns nothing where there is none of its kind
 */
export function fitPart(
  { id, kind, exact, reach: far = REACH, making }: AskedPart,
  supply: Supply,
): FitPart | undefined {
  const { field, from, adds } = KINDS[kind];
  const [least, greatest] = supply.limits?.[kind] ?? [0, Infinity];
  const span = (reach: number): [number, number] => [
    Math.max(least, exact / reach),
    Math.min(greatest, exact * reach),
  ];
  const series = supply[from];
  const listed = (reach: number): Offer[] => {
    const own = supply.stock?.[kind];
    if (own) return stockOffers(own, ...span(reach));
    return series === 'exact'
      ? anyValue(exact, ...span(far))
      : seriesOffers(series, ...span(reach));
  };
  const singles = listed(far);
  if (making === 'trimmer' && kind === 'resistor') {
    const [beside, trimmers] = [listed(COMPANIONS), trimmersOf(supply)];
    const setTo = (value: number): Offer[] => {
      const offer = withTrimmer(beside, trimmers, value);
      return offer ? [offer] : [];
    };
    const places = seriesOffers('E24', ...span(far)).flatMap(({ value }) => setTo(value));
    if (places.length === 0) return undefined;
    return { id, field, exact, singles: places, pairsNear: setTo, trimmed: true };
  }
  if (singles.length === 0) return undefined;
  const pairs = making === undefined || making === 'trimmer' ? (supply.pairs ?? 'none') : making;
  const companions = pairs === 'none' || series === 'exact' ? [] : listed(COMPANIONS);
  return {
    id,
    field,
    exact,
    singles,
    ...(companions.length > 0
      ? { pairsNear: (value: number) => pairsNear(companions, pairs, adds, value) }
      : {}),
  };
}

const trimmersOf = ({ trimmers }: Supply): readonly Offer[] =>
  trimmers ? stockOffers(trimmers, 0, Infinity) : USUAL_TRIMMERS;

/** Values close to each other about an exact one, itself among them. */
function anyValue(exact: number, from: number, to: number): Offer[] {
  const steps = [Math.ceil(Math.log(from / exact) / FINE), Math.floor(Math.log(to / exact) / FINE)];
  return Array.from({ length: steps[1] - steps[0] + 1 }, (_, k): Offer => {
    const value = exact * Math.exp((steps[0] + k) * FINE);
    return { value, made: { how: 'single', of: [value] } };
  });
}

/** The parts of a circuit whose values are chosen, with the value each has. */
export const chosenParts = (circuit: Circuit): AskedPart[] =>
  circuit.parts.flatMap((part) => {
    if (!isChosenKind(part.kind)) return [];
    const exact = part[KINDS[part.kind].field as keyof Part] as unknown as number;
    return [{ id: part.id, kind: part.kind, exact }];
  });
