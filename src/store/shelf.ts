import type { Card, CardCurve } from './card';
import { database, type ReedDatabase } from './database';

/*
 * The shelf reads cards, which are small, and nothing that could read a sheet: it is what is opened
 * first. What looks after the cards stands in tend-cards.ts.
 */

/** Every card that is stored, in order. */
export async function listCards(db: ReedDatabase = database()): Promise<Card[]> {
  return inOrder(await db.cards.toArray());
}

/** Latest change first; those without a legible date last. */
export const inOrder = (cards: readonly Card[]): Card[] =>
  [...cards].sort((a, b) => (a.updatedAt < b.updatedAt ? 1 : a.updatedAt > b.updatedAt ? -1 : 0));

/** Store the small picture of a sheet with its card, unless the sheet has changed meanwhile. */
export async function keepCurve(
  id: string,
  curve: CardCurve,
  db: ReedDatabase = database(),
): Promise<void> {
  await db.cards
    .where('id')
    .equals(id)
    .modify((card) => {
      if (card.curveKey === curve.key) card.curve = curve;
    });
}

/** Cards whose sheet does all that is asked for: each word of the query stands in title or ask. */
export function searchCards(cards: readonly Card[], query: string): Card[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return cards.filter((card) => words.every((w) => card.words.includes(w)));
}
