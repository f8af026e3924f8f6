import { demoSheets } from '@/core/demo/sheets';
import { messageOf } from '@/core/errors';
import { readSheet } from '@/core/sheet/read';
import type { Sheet } from '@/core/sheet/schema';
import { database, type ReedDatabase, type SheetRecord } from './database';
import { newId, now } from './ids';

/** A stored sheet as the shelf sees it: read, or the reason why it cannot be. */
export type ShelfItem = { id: string; updatedAt: string } & (
  { sheet: Sheet } | { problem: string; document: unknown }
);

/** Every sheet that is not deleted, latest change first. */
export async function listSheets(db: ReedDatabase = database()): Promise<ShelfItem[]> {
  const records = await db.sheets.orderBy('updatedAt').reverse().toArray();
  return records.filter((r) => r.deletedAt === null).map(shelfItem);
}

export function shelfItem({ id, updatedAt, document }: SheetRecord): ShelfItem {
  try {
    return { id, updatedAt, sheet: readSheet(document) };
  } catch (error) {
    return { id, updatedAt, problem: messageOf(error), document };
  }
}

export async function loadSheet(
  id: string,
  db: ReedDatabase = database(),
): Promise<ShelfItem | undefined> {
  const record = await db.sheets.get(id);
  return record && record.deletedAt === null ? shelfItem(record) : undefined;
}

export type SaveResult = { saved: Sheet } | { conflict: Sheet };

/**
 * Store a sheet, unless someone else stored it since it was read.
 *
 * The comparison and the write are one transaction, so of two tabs the second is told, and neither
 * overwrites the other silently.
 */
export async function saveSheet(sheet: Sheet, db: ReedDatabase = database()): Promise<SaveResult> {
  return db.transaction('rw', db.sheets, async () => {
    const stored = await db.sheets.get(sheet.id);
    if (stored && stored.revision !== sheet.revision) {
      const theirs = shelfItem(stored);
      if ('sheet' in theirs) return { conflict: theirs.sheet };
    }
    const saved: Sheet = { ...sheet, revision: sheet.revision + 1, updatedAt: now() };
    await db.sheets.put(recordOf(saved));
    return { saved };
  });
}

/** Store a sheet under a new id; the original, if any, stays as it is. */
export async function addSheet(
  sheet: Sheet,
  title = sheet.title,
  db: ReedDatabase = database(),
): Promise<Sheet> {
  const at = now();
  const added: Sheet = { ...sheet, id: newId(), title, createdAt: at, updatedAt: at, revision: 1 };
  delete added.demo;
  await db.sheets.add(recordOf(added));
  return added;
}

export async function renameSheet(
  sheet: Sheet,
  title: string,
  db: ReedDatabase = database(),
): Promise<SaveResult> {
  return saveSheet({ ...sheet, title }, db);
}

/** Take a sheet off the shelf; `restoreSheet` brings it back. */
export async function deleteSheet(id: string, db: ReedDatabase = database()): Promise<void> {
  await db.sheets.update(id, { deletedAt: now() });
}

export async function restoreSheet(id: string, db: ReedDatabase = database()): Promise<void> {
  await db.sheets.update(id, { deletedAt: null });
}

/** Deleted sheets are kept for a week, then cleared away. */
export async function clearOldDeletions(db: ReedDatabase = database()): Promise<void> {
  const weekAgo = new Date(Date.now() - 7 * 24 * 3600 * 1000).toISOString();
  await db.sheets.filter((r) => r.deletedAt !== null && r.deletedAt < weekAgo).delete();
}

/** Put the demo sheets on the shelf the first time this browser opens the product. */
export async function seedDemo(db: ReedDatabase = database()): Promise<void> {
  await db.transaction('rw', db.sheets, db.facts, async () => {
    if (await db.facts.get('demo-seeded')) return;
    for (const sheet of demoSheets(now()))
      if (!(await db.sheets.get(sheet.id))) await db.sheets.add(recordOf(sheet));
    await db.facts.put({ name: 'demo-seeded', value: true });
  });
}

let ready: Promise<void> | undefined;

/** Resolves once the demo sheets have been put on a new shelf; begun by whoever asks first. */
export function shelfReady(): Promise<void> {
  ready ??= seedDemo();
  return ready;
}

/**
 * Bring the demo sheets back as they were. A demo sheet that was worked on is first set aside under
 * a new id and name, so nothing of the user's is lost; other sheets are not touched.
 *
 * @returns how many changed ones were set aside
 */
export async function restoreDemo(db: ReedDatabase = database()): Promise<number> {
  return db.transaction('rw', db.sheets, async () => {
    let aside = 0;
    for (const fresh of demoSheets(now())) {
      const record = await db.sheets.get(fresh.id);
      if (record && record.deletedAt === null && record.revision > 0) {
        const item = shelfItem(record);
        if ('sheet' in item) {
          await addSheet(item.sheet, `${item.sheet.title} (yours)`, db);
          aside++;
        }
      }
      await db.sheets.put(recordOf(fresh));
    }
    return aside;
  });
}

function recordOf(sheet: Sheet): SheetRecord {
  return {
    id: sheet.id,
    updatedAt: sheet.updatedAt,
    revision: sheet.revision,
    deletedAt: null,
    document: sheet,
  };
}
