import type { Card } from './card';
import { cardOf, printOf, UNPRINTABLE } from './cards';
import { database, type ReedDatabase, type SheetRecord } from './database';
import { readRecords } from './records';

/*
 * A card that is missing, or whose record was changed by something that knows no cards, is made again
 * a few at a time.
 */

/** Records that are looked at together, and of those, how many are read between two breaths. */
const SLICE = 60;
const BREATH = 4;

/**
 * Bring the cards in line with the sheets.
 *
 * @param breathe awaited between pieces of the work, so that the page stays answerable
 * @returns how many cards were made or removed
 */
export async function tendCards(
  db: ReedDatabase = database(),
  breathe: () => Promise<void> = () => new Promise((resolve) => setTimeout(resolve, 0)),
): Promise<number> {
  const [ids, cards] = await Promise.all([
    db.sheets.toCollection().primaryKeys(),
    db.cards.toArray(),
  ]);
  const known = new Map(cards.map((c) => [c.id, c]));
  const there = new Set(ids);
  const orphans = cards.filter((c) => !there.has(c.id)).map((c) => c.id);
  let changed = orphans.length;
  if (orphans.length > 0) await db.cards.bulkDelete(orphans);
  // Those without a card first: they are not on screen at all.
  const order = [...ids.filter((id) => !known.has(id)), ...ids.filter((id) => known.has(id))];
  for (let from = 0; from < order.length; from += SLICE) {
    const records = await db.sheets.bulkGet(order.slice(from, from + SLICE));
    const due: SheetRecord[] = [];
    for (const [i, record] of records.entries()) {
      if (i % BREATH === 0) await breathe();
      const card = record && known.get(record.id);
      if (record && (card?.print !== printOf(record) || card.print === UNPRINTABLE))
        due.push(record);
    }
    const fresh: Card[] = [];
    for (let k = 0; k < due.length; k += BREATH) {
      await breathe();
      const few = due.slice(k, k + BREATH);
      const read = await readRecords(few, db);
      fresh.push(...few.map((record, i) => cardOf(record, read[i], known.get(record.id))));
    }
    if (fresh.length > 0) changed += await putFitting(fresh, db);
  }
  return changed;
}

/** Cards of sheets that have none stored, where there is no room to store them. */
export async function cardsToShow(db: ReedDatabase = database()): Promise<Card[]> {
  const stored = new Set(await db.cards.toCollection().primaryKeys());
  const bare = (await db.sheets.toCollection().primaryKeys()).filter((id) => !stored.has(id));
  const records = (await db.sheets.bulkGet(bare)).flatMap((r) => r ?? []);
  const read = await readRecords(records, db);
  return records.map((record, i) => cardOf(record, read[i]));
}

/** Store cards, but none of a record that was written or removed while its card was made. */
function putFitting(fresh: readonly Card[], db: ReedDatabase): Promise<number> {
  return db.transaction('rw', db.sheets, db.cards, async () => {
    const records = await db.sheets.bulkGet(fresh.map((c) => c.id));
    const fitting = fresh.filter((card, i) => {
      const record = records[i];
      return record !== undefined && printOf(record) === card.print;
    });
    await db.cards.bulkPut(fitting);
    return fitting.length;
  });
}
