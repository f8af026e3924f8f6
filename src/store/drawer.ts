import { ReedError } from '@/core/errors';
import { supplyOf } from '@/core/fit/stock-of';
import { readEntry } from '@/core/library/entry';
import { stockKind, type StockEntry } from '@/core/library/stock';
import { stockEntryOf } from '@/core/library/stock-table';
import type { StockWords } from '@/core/library/stock-words';
import { quoted } from '@/core/text';
import { logPurchase } from './book';
import { database, type ReedDatabase } from './database';
import { newId } from './ids';

/** Everything in the drawer that can be read, and what is to be said of the rest. */
export interface DrawerContents {
  entries: StockEntry[];
  problems: { id: string; problem: string }[];
}

/** Most entries that the drawer holds. */
export const DRAWER_LIMIT = 20_000;

/** The drawer as it lies: kinds together, values rising. */
export async function drawerContents(db: ReedDatabase = database()): Promise<DrawerContents> {
  const found: DrawerContents = { entries: [], problems: [] };
  for (const { id, document } of await db.drawer.toArray()) {
    try {
      found.entries.push({ ...readEntry(stockKind, document), id });
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      found.problems.push({ id, problem: error.message });
    }
  }
  found.entries.sort(
    (a, b) =>
      a.kind.localeCompare(b.kind) ||
      (a.value ?? 0) - (b.value ?? 0) ||
      a.name.localeCompare(b.name),
  );
  return found;
}

/** What values can be chosen from. Kinds of which nothing is left are as if the drawer did not know them. */
export async function stockOfDrawer(): Promise<ReturnType<typeof supplyOf>> {
  const { entries } = await drawerContents();
  return supplyOf(entries.filter((e) => e.quantity > 0));
}

/**
 * Put parts into the drawer, all or none of them. What is there already under the same words becomes
 * more of it.
 *
 * @throws ReedError `range` where the drawer would hold more than it can
 */
export function addToDrawer(
  parts: readonly StockWords[],
  db: ReedDatabase = database(),
): Promise<number> {
  return db.transaction('rw', db.drawer, async () => {
    const { entries } = await drawerContents(db);
    const same = new Map(entries.map((entry) => [likeness(entry), entry]));
    const changed = new Map<string, StockEntry>();
    for (const words of parts) {
      const key = likeness(words);
      const there = changed.get(key) ?? same.get(key);
      changed.set(
        key,
        there
          ? { ...there, quantity: there.quantity + words.quantity }
          : stockEntryOf(words, newId()),
      );
    }
    const fresh = [...changed.keys()].filter((key) => !same.has(key)).length;
    if (entries.length + fresh > DRAWER_LIMIT)
      throw new ReedError(
        'range',
        `The drawer holds at most ${DRAWER_LIMIT} kinds of parts: take some out first.`,
      );
    await put([...changed.values()], db);
    return changed.size;
  });
}

/** Put parts that were bought into the drawer, and write the purchase into the book: both or neither. */
export function buyIntoDrawer(
  parts: readonly StockWords[],
  total: number,
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.drawer, db.book, async () => {
    await addToDrawer(parts, db);
    const bought = parts.map(({ name, quantity }) => ({ what: name, pieces: quantity }));
    await logPurchase(total, bought, db);
  });
}

/** Change an entry of the drawer. */
export function changeInDrawer(
  id: string,
  change: Partial<StockWords>,
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.drawer, async () => {
    const entry = await required(id, db);
    await put([{ ...entry, ...change }], db);
  });
}

export async function removeFromDrawer(id: string, db: ReedDatabase = database()): Promise<void> {
  await db.drawer.delete(id);
}

/** Bring a removed entry back as it was. */
export const putBack = (entry: StockEntry, db: ReedDatabase = database()): Promise<void> =>
  put([entry], db);

/**
 * Take parts out, or with negative counts put them back: all or none of them.
 *
 * @param counts pieces by entry
 * @throws ReedError `range` naming the entry that has not enough
 */
export function takeFromDrawer(
  counts: ReadonlyMap<string, number>,
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.drawer, async () => {
    const changed: StockEntry[] = [];
    for (const [id, count] of counts) {
      // What has left the drawer altogether takes nothing back.
      if (count < 0 && !(await db.drawer.get(id))) continue;
      const entry = await required(id, db);
      if (entry.quantity < count)
        throw new ReedError(
          'range',
          `Of ${quoted(entry.name)} there are ${entry.quantity} in the drawer and ${count} are needed: nothing was taken.`,
        );
      changed.push({ ...entry, quantity: entry.quantity - count });
    }
    await put(changed, db);
  });
}

async function required(id: string, db: ReedDatabase): Promise<StockEntry> {
  const record = await db.drawer.get(id);
  if (!record)
    throw new ReedError(
      'range',
      'That part is no longer in the drawer: it was taken out elsewhere.',
    );
  return { ...readEntry(stockKind, record.document), id };
}

/** Checked before any of it is stored. */
async function put(entries: readonly StockEntry[], db: ReedDatabase): Promise<void> {
  const records = entries.map((entry) => ({ id: entry.id, document: readEntry(stockKind, entry) }));
  await db.drawer.bulkPut(records);
}

/** What two entries have in common that are one: all but how many there are, and the price. */
function likeness({ kind, value, tolerance, make, place, ...rest }: StockWords): string {
  const { ppmPerKelvin, ratedVolts, ratedWatts, name, model } = rest;
  const named = value === undefined ? name : '';
  return JSON.stringify([
    kind,
    value?.toPrecision(9),
    tolerance,
    make?.toLowerCase(),
    place?.toLowerCase(),
    ppmPerKelvin,
    ratedVolts,
    ratedWatts,
    named,
    model,
  ]);
}
