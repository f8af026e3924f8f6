import { kindCalled, kindOfValue } from '@/core/library/stock-words';
import { mainQuantity } from '@/core/parts/quantities';
import { partKindOf } from '@/core/parts';
import { parseQuantity } from '@/core/quantity/parse';
import { catalogue } from './catalogue';
import type { ShopAnswer, ShopOffer, ShopOrder, ShopReceipt } from './offer';

/** What of a search is answered. */
const MOST_OFFERS = 40;
/** Values this close, as a factor, are what was looked for; the nearest come first. */
const NEAR = 1.25;

export interface ShopQuery {
  /** Words: a value, a kind, what it is made of. */
  text: string;
  kind?: string;
  /** A value in SI units; the nearest are offered. */
  value?: number;
}

/**
 * What the shop has of what is looked for, the nearest value and then the cheapest first.
 *
 * @param soldOut whether it has run out of all that it usually has plenty of
 */
export function search(query: ShopQuery, soldOut = false): ShopAnswer {
  const { kind, value, words } = understood(query);
  const found = catalogue()
    .filter((o) => kind === undefined || o.kind === kind)
    .filter(
      (o) =>
        value === undefined ||
        (o.value !== undefined && Math.abs(Math.log(o.value / value)) < Math.log(NEAR)),
    )
    .filter((o) =>
      words.every((w) => `${o.name} ${o.make ?? ''} ${o.kind}`.toLowerCase().includes(w)),
    )
    .map((o) => (soldOut ? { ...o, pieces: o.pieces % 3 } : o));
  const off = (o: ShopOffer) =>
    value === undefined || o.value === undefined ? 0 : Math.abs(Math.log(o.value / value));
  found.sort((a, b) => off(a) - off(b) || a.price - b.price);
  return {
    format: 'jaunty-reed/shop-answer',
    version: 1,
    offers: found.slice(0, MOST_OFFERS),
    more: Math.max(0, found.length - MOST_OFFERS),
  };
}

/** What the words of a search are about: a kind, a value of it, and the rest. */
function understood({ text, kind, value }: ShopQuery) {
  const all = text.trim().split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
  const called = all.find((word) => kindCalled(word));
  const found = kind ?? (called && kindCalled(called)?.kind) ?? all.map(kindOfValue).find(Boolean);
  const rest = all.filter((word) => word !== called);
  const number = value === undefined && found !== undefined ? firstValue(rest, found) : undefined;
  return {
    kind: found,
    value: value ?? number?.value,
    words: rest.filter((word) => word !== number?.word).map((word) => word.toLowerCase()),
  };
}

const MOST_WORDS = 12;

/** The first word that is a value of a kind of part. */
function firstValue(words: readonly string[], kind: string) {
  const main = mainQuantity(partKindOf(kind));
  if (!main) return undefined;
  for (const word of words) {
    if (!/^[.\d]/.test(word)) continue;
    try {
      return { word, value: parseQuantity(word, main.quantity) };
    } catch {
      // A word like “5mm” is looked for as it is.
    }
  }
  return undefined;
}

/** Deliver an order: all of it, or nothing where something is not there. */
export function order({ items }: ShopOrder, soldOut = false): ShopReceipt {
  const byId = new Map(
    catalogue().map((o) => [o.id, soldOut ? { ...o, pieces: o.pieces % 3 } : o]),
  );
  const lacking = items.flatMap(({ id, pieces }) => {
    const there = byId.get(id)?.pieces ?? 0;
    return there < pieces ? [{ id, pieces: there }] : [];
  });
  const delivered =
    lacking.length > 0 ? [] : items.map(({ id, pieces }) => ({ offer: byId.get(id)!, pieces }));
  const total = delivered.reduce((sum, { offer, pieces }) => sum + offer.price * pieces, 0);
  return {
    format: 'jaunty-reed/shop-receipt',
    version: 1,
    delivered,
    lacking,
    total: Number(total.toFixed(2)),
  };
}
