import type { StockEntry } from '@/core/library/stock';
import type { StockItem } from './offers';
import { isChosenKind, type ChosenKind, type Supply } from './supply';

/** What of some stock values can be chosen from, by kind; kinds that it does not name are absent. */
export function stockOf(entries: readonly StockEntry[]): NonNullable<Supply['stock']> {
  const stock: Partial<Record<ChosenKind, StockItem[]>> = {};
  for (const { id, kind, value, quantity } of entries)
    if (isChosenKind(kind) && value !== undefined)
      (stock[kind] ??= []).push({ id, value, quantity });
  return stock;
}

/** The trimmers and potentiometers among some stock, whose whole tracks are told. */
export const trimmersIn = (entries: readonly StockEntry[]): StockItem[] =>
  entries.flatMap(({ id, kind, value, quantity }) =>
    kind === 'potentiometer' && value !== undefined ? [{ id, value, quantity }] : [],
  );
