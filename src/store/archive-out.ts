import type { ArchiveIndex } from '@/core/archive/archive-index';
import { ArchiveWriter } from '@/core/archive/writer';
import { readBookEntry } from '@/core/book/entry';
import { ReedError } from '@/core/errors';
import { LIBRARY, LIBRARY_TABLES } from '@/core/library';
import { readEntry, type LibraryTable } from '@/core/library/entry';
import { database, type ReedDatabase } from './database';
import { now } from './ids';
import { whole } from './keeps';
import { KEPT_SETTINGS } from './kept-settings';
import { isDeleted, readRecords } from './records';
import { stateOf } from './states';

/*
 * Everything that is stored, written to one archive: in one transaction, so that nothing of it is of
 * another moment than the rest, and a few records at a time.
 */

/** Records that are in memory at once. */
const SLICE = 20;

/** What of a table goes under which kind. */
export const LIBRARY_KINDS = { takes: 'take', drivers: 'driver', drawer: 'part' } as const;

/** Tables of which everything is archived. */
export const archivedTables = (db: ReedDatabase) => [
  db.sheets,
  db.keeps,
  db.takes,
  db.drivers,
  db.drawer,
  db.book,
  db.states,
  db.pictures,
];

/**
 * Write an archive of everything.
 *
 * @param sink takes the bytes of the file, in order
 * @param progress told how much of it is done, from 0 to 1
 */
export async function writeArchive(
  sink: (chunk: Uint8Array<ArrayBuffer>) => void,
  progress: (done: number) => void = () => undefined,
  db: ReedDatabase = database(),
): Promise<ArchiveIndex> {
  const writer = new ArchiveWriter(now(), sink);
  await db.transaction('r', archivedTables(db), async () => {
    const counts = await Promise.all(archivedTables(db).map((table) => table.count()));
    const all = Math.max(1, counts.reduce((sum, n) => sum + n, 0) - counts[1]);
    let done = 0;
    const step = (records: readonly unknown[]) =>
      progress(Math.min(1, (done += records.length) / all));
    await writeSheets(writer, db, step);
    for (const table of LIBRARY_TABLES) await writeLibrary(writer, table, db, step);
    await inSlices(await db.book.toCollection().primaryKeys(), async (ids) => {
      const records = await db.book.bulkGet(ids);
      for (const record of records) {
        if (!record || record.document === null) continue;
        const { id, document } = record;
        attempt(writer, 'book', id, document, () => writer.add('line', readBookEntry(document)));
      }
      step(records);
    });
    await inSlices(await db.states.toCollection().primaryKeys(), async (keys) => {
      for (const key of keys) {
        try {
          writer.add('state', { key, state: await stateOf(key, db) });
        } catch (error) {
          // A state that cannot be unpacked is of no use to anybody.
          if (!(error instanceof ReedError)) throw error;
        }
      }
      step(keys);
    });
    await inSlices(await db.pictures.toCollection().primaryKeys(), async (ids) => {
      for (const picture of await db.pictures.bulkGet(ids))
        if (picture) writer.addPicture(picture.id, picture.type, picture.bytes);
      step(ids);
    });
  });
  for (const [name, { state }] of Object.entries(KEPT_SETTINGS))
    writer.add('settings', { name, value: settingsOf(state()) }, name);
  return writer.end();
}

/** What of a small store is kept: no actions. */
const settingsOf = (state: object): unknown =>
  Object.fromEntries(Object.entries(state).filter(([, value]) => typeof value !== 'function'));

async function inSlices<K>(keys: readonly K[], each: (some: K[]) => Promise<void>): Promise<void> {
  for (let from = 0; from < keys.length; from += SLICE) await each(keys.slice(from, from + SLICE));
}

async function writeSheets(
  writer: ArchiveWriter,
  db: ReedDatabase,
  step: (records: readonly unknown[]) => void,
): Promise<void> {
  await inSlices(await db.sheets.toCollection().primaryKeys(), async (ids) => {
    const records = (await db.sheets.bulkGet(ids)).flatMap((r) => r ?? []);
    const read = await readRecords(records, db);
    const documents = await whole(records, db);
    read.forEach((stored, i) => {
      const deletedAt = isDeleted(records[i]) ? records[i].deletedAt : null;
      if ('sheet' in stored)
        writer.add('sheet', { sheet: stored.sheet, deletedAt }, stored.sheet.title);
      else addDamaged(writer, 'sheets', stored.id, documents[i].document);
    });
    step(records);
  });
}

async function writeLibrary(
  writer: ArchiveWriter,
  table: LibraryTable,
  db: ReedDatabase,
  step: (records: readonly unknown[]) => void,
): Promise<void> {
  await inSlices(await db[table].toCollection().primaryKeys(), async (ids) => {
    const records = await db[table].bulkGet(ids);
    for (const record of records) {
      if (!record) continue;
      const { id, document } = record;
      attempt(writer, table, id, document, () => {
        const entry = { ...readEntry(LIBRARY[table], document), id };
        writer.add(LIBRARY_KINDS[table], entry, entry.name);
      });
    }
    step(records);
  });
}

/** Add something, or where it cannot be read, what is there of it. */
function attempt(
  writer: ArchiveWriter,
  table: string,
  id: string,
  document: unknown,
  add: () => void,
): void {
  try {
    add();
  } catch (error) {
    if (!(error instanceof ReedError) || error.code === 'range') throw error;
    addDamaged(writer, table, id, document);
  }
}

function addDamaged(writer: ArchiveWriter, table: string, id: string, document: unknown): void {
  let legible: unknown = document;
  try {
    JSON.stringify(document);
  } catch {
    legible = String(document);
  }
  writer.add('damaged', { table, id, document: legible ?? null }, `${table} ${id}`);
}
