import type { StockEntry } from '@/core/library/stock';
import type { Made, StockItem } from './offers';
import { isChosenKind, type ChosenKind, type Supply } from './supply';

/** What can be chosen from the drawer. */
export type DrawerSupply = Pick<Supply, 'stock' | 'trimmers'>;

/** What of some stock values can be chosen from; kinds that it does not name are absent. */
export function supplyOf(
  entries: readonly StockEntry[],
): Required<Pick<Supply, 'stock'>> & DrawerSupply {
  const trimmers = trimmersIn(entries);
  return { stock: stockOf(entries), ...(trimmers.length > 0 ? { trimmers } : {}) };
}

function stockOf(entries: readonly StockEntry[]): NonNullable<Supply['stock']> {
  const stock: Partial<Record<ChosenKind, StockItem[]>> = {};
  for (const { id, kind, value, quantity } of entries)
    if (isChosenKind(kind) && value !== undefined)
      (stock[kind] ??= []).push({ id, value, quantity });
  return stock;
}

/** The trimmers and potentiometers among some stock, whose whole tracks are told. */
const trimmersIn = (entries: readonly StockEntry[]): StockItem[] =>
  entries.flatMap(({ id, kind, value, quantity }) =>
    kind === 'potentiometer' && value !== undefined ? [{ id, value, quantity }] : [],
  );

/**
 * What is left of the drawer once some entries have been taken from, a piece of each for every board;
 * an entry that is named twice is taken from twice.
 */
export function lessTaken(
  { stock, trimmers }: DrawerSupply,
  taken: readonly string[],
  boards = 1,
): DrawerSupply {
  const gone = piecesOf(taken, boards);
  const left = (items: readonly StockItem[]) =>
    items.map((i) => ({ ...i, quantity: Math.max(0, i.quantity - (gone.get(i.id) ?? 0)) }));
  return {
    ...(stock && {
      stock: Object.fromEntries(Object.entries(stock).map(([kind, items]) => [kind, left(items)])),
    }),
    ...(trimmers && { trimmers: left(trimmers) }),
  };
}

/** Entries that what was chosen is taken from, once for each piece. */
export const takenBy = (chosen: readonly { made: Made }[]): string[] =>
  chosen.flatMap(({ made }) => made.stock ?? []);

/** How many pieces of each entry that takes, for so many boards. */
export function piecesOf(taken: readonly string[], boards: number): Map<string, number> {
  const pieces = new Map<string, number>();
  for (const id of taken) pieces.set(id, (pieces.get(id) ?? 0) + boards);
  return pieces;
}
