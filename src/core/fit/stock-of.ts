import type { StockEntry } from '@/core/library/stock';
import type { StockItem } from './offers';
import { isChosenKind, type ChosenKind, type Supply } from './supply';

/** What of the drawer values can be chosen from, by kind; kinds of which it has nothing are absent. */
export function stockOf(drawer: readonly StockEntry[]): NonNullable<Supply['stock']> {
  const stock: Partial<Record<ChosenKind, StockItem[]>> = {};
  for (const { id, kind, value, quantity } of drawer)
    if (isChosenKind(kind) && value !== undefined && quantity > 0)
      (stock[kind] ??= []).push({ id, value, quantity });
  return stock;
}
