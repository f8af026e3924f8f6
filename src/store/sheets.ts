import { madeDemo, madeDrivers } from './demo';
import { ReedError } from '@/core/errors';
import { isNewer, readSheet } from '@/core/sheet/read';
import { salvageSheet, type Salvage } from '@/core/sheet/salvage';
import { fileOf, type SheetFile } from '@/core/sheet/file';
import { withReferences } from '@/core/sheet/references';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Sheet } from '@/core/sheet/schema';
import { EMPTY_LIBRARY, LIBRARY_TABLES } from '@/core/library';
import { nameWith } from '@/core/text';
import { keepLastState, logBegun, logChange } from './book';
import { cardOf, cardOfSheet, isSound } from './cards';
import { database, type ReedDatabase, type SheetRecord } from './database';
import { newId, now } from './ids';
import { namesKeepsOf, putKeeps, whole } from './keeps';
import { addEntries, dropTakes, libraryFor } from './library';
import {
  isDeleted,
  readRecord,
  readRecords,
  recordOf,
  revisionOf,
  type StoredSheet,
} from './records';
import { putDrivers } from './seed-demo';

/** A stored sheet, unless it is deleted or was never there. */
export async function loadSheet(
  id: string,
  db: ReedDatabase = database(),
): Promise<StoredSheet | undefined> {
  const record = await db.sheets.get(id);
  return record && !isDeleted(record) ? readRecord(record, db) : undefined;
}

export type SaveResult =
  | {
      saved: Sheet;
      /** Title of an unreadable record that stood in the way and was kept beside. */
      aside?: string;
    }
  /** Someone else stored it since it was read. */
  | { conflict: Sheet }
  /** What is stored was written by a newer program: it is left alone. */
  | { newer: true }
  /** It was deleted since it was read. */
  | { gone: true };

/** The sheet that was stored last from here, as it was then: edits share what they leave alone with it. */
const lastStored = new WeakMap<ReedDatabase, Sheet>();

/** How a save meets a sheet that was deleted: by being told, by bringing it back, or by leaving it so. */
export type WhenDeleted = 'tell' | 'bring-back' | 'stay-deleted';

/**
 * Store a sheet, unless someone else stored it since it was read.
 *
 * The comparison and the write are one transaction, so of two tabs the second is told, and neither
 * overwrites the other silently.
 *
 * What it changes is written into the book in the same transaction.
 *
 * @param by what was done, where that is more than an edit: the book says it
 * @throws ReedError `range` when the sheet would not read back
 */
export async function saveSheet(
  sheet: Sheet,
  whenDeleted: WhenDeleted = 'tell',
  db: ReedDatabase = database(),
  by?: string,
): Promise<SaveResult> {
  return writing(db, async (): Promise<SaveResult> => {
    const stored = await db.sheets.get(sheet.id);
    if (whenDeleted === 'tell' && (!stored || isDeleted(stored))) return { gone: true };
    let aside: string | undefined;
    let before: Sheet | undefined;
    const card = await db.cards.get(sheet.id);
    // What was stored from here is as it was: it need not be read again.
    const last = lastStored.get(db);
    const isAsLeft = stored && revisionOf(stored) === sheet.revision && isSound(card, stored);
    if (isAsLeft && last?.id === sheet.id && last.revision === sheet.revision) before = last;
    else if (stored) {
      const theirs = await readRecord(stored, db);
      if ('problem' in theirs) {
        if (isNewer(stored.document)) return { newer: true };
        aside = await setAside(stored, db);
      } else if (revisionOf(stored) !== sheet.revision) return { conflict: theirs.sheet };
      else before = theirs.sheet;
    }
    const saved: Sheet = { ...sheet, revision: sheet.revision + 1, updatedAt: now() };
    await put(saved, db, whenDeleted === 'stay-deleted' ? now() : null, stored);
    if (before) await logChange(before, saved, db, by);
    lastStored.set(db, saved);
    return aside === undefined ? { saved } : { saved, aside };
  });
}

/** Store a sheet under a new id; the original, if any, stays as it is. */
export async function addSheet(
  sheet: Sheet,
  title = sheet.title,
  db: ReedDatabase = database(),
): Promise<Sheet> {
  const [added] = await addFiles([{ sheet: { ...sheet, title }, along: EMPTY_LIBRARY }], db);
  return added;
}

/**
 * Store sheets under new ids, with what they bring along, all of it or nothing: a long list is one
 * piece of work.
 */
export async function addFiles(
  files: readonly SheetFile[],
  db: ReedDatabase = database(),
): Promise<Sheet[]> {
  const at = now();
  const fresh = files.map(({ sheet, along }) => {
    const one: Sheet = { ...sheet, id: newId(), createdAt: at, updatedAt: at, revision: 1 };
    delete one.demo;
    return { one, along };
  });
  return writing(db, async () => {
    const added: Sheet[] = [];
    for (const { one, along } of fresh) {
      const renamed = await addEntries(along, db);
      added.push(
        renamed.size === 0
          ? one
          : withReferences(one, (table, id) => renamed.get(`${table}/${id}`) ?? id),
      );
    }
    const records = added.map((sheet) => recordOf(sheet));
    await db.sheets.bulkAdd(records);
    for (const sheet of added) if (sheet.keeps.length > 0) await putKeeps(sheet, db);
    await db.cards.bulkPut(added.map((sheet, i) => cardOfSheet(records[i], sheet)));
    await logBegun(added, db);
    return added;
  });
}

/** Store a copy whose name says what kind of copy it is; a long name gives way. */
export function copySheet(
  sheet: Sheet,
  suffix: string,
  db: ReedDatabase = database(),
): Promise<Sheet> {
  return addSheet(sheet, nameWith(sheet.title, suffix, SHEET_LIMITS.name), db);
}

/** @throws ReedError `document` when it is gone or cannot be read */
export async function renameSheet(
  id: string,
  title: string,
  db: ReedDatabase = database(),
): Promise<void> {
  await writing(db, async () => {
    const sheet = await required(id, db);
    const renamed = { ...sheet, title, revision: sheet.revision + 1, updatedAt: now() };
    await put(renamed, db);
    await logChange(sheet, renamed, db);
  });
}

/** The sheet of an id, for an action that needs it read. */
export async function required(id: string, db: ReedDatabase = database()): Promise<Sheet> {
  const stored = await loadSheet(id, db);
  if (!stored) throw new ReedError('document', 'the sheet is no longer there.');
  if ('problem' in stored) throw new ReedError('document', stored.problem);
  return stored.sheet;
}

/** What is stored under an id, as it is. */
export async function storedDocument(id: string, db: ReedDatabase = database()): Promise<unknown> {
  const record = await db.sheets.get(id);
  return record && (await whole([record], db))[0].document;
}

/** Everything that is stored and not deleted, as it is; sheets that refer to the library as files. */
export async function storedDocuments(db: ReedDatabase = database()): Promise<unknown[]> {
  const records = (await db.sheets.toArray()).filter((r) => !isDeleted(r));
  const documents = await whole(records, db);
  return Promise.all(
    documents.map(async (record, i) => {
      if (!Array.isArray(record.refers) || record.refers.length === 0) return record.document;
      const read = await readRecord(records[i], db);
      if ('problem' in read) return record.document;
      return fileOf(read.sheet, (await libraryFor([read.sheet], db)).library);
    }),
  );
}

/** Take a sheet off the shelf; `restoreSheet` brings it back for a week. */
export async function deleteSheet(id: string, db: ReedDatabase = database()): Promise<void> {
  await mark(id, now(), db);
}

export async function restoreSheet(id: string, db: ReedDatabase = database()): Promise<void> {
  await mark(id, null, db);
}

async function mark(id: string, deletedAt: string | null, db: ReedDatabase): Promise<void> {
  await writing(db, async () => {
    const record = await db.sheets.get(id);
    if (!record) throw new ReedError('document', 'the sheet is no longer there.');
    const marked = { ...record, deletedAt };
    await db.sheets.put(marked);
    await db.cards.put(cardOf(marked, await readRecord(record, db), await db.cards.get(id)));
  });
}

/** Remove a deleted sheet before its week is over. */
export async function deleteForGood(id: string, db: ReedDatabase = database()): Promise<void> {
  await writing(db, async () => {
    const record = await db.sheets.get(id);
    if (record) await remove([record], db);
    else await db.cards.delete(id);
  });
}

/** Remove records with all that was only theirs; within a transaction. */
async function remove(records: readonly SheetRecord[], db: ReedDatabase): Promise<void> {
  const ids = records.map((r) => r.id);
  for (const read of await readRecords(records, db))
    if ('sheet' in read) await keepLastState(read.sheet, db);
  await db.sheets.bulkDelete(ids);
  await db.cards.bulkDelete(ids);
  await db.keeps.where('sheet').anyOf(ids).delete();
  await dropTakes(
    records.flatMap((r) => (Array.isArray(r.refers) ? r.refers : [])),
    db,
  );
}

export const DELETED_DAYS = 7;

/** Deleted sheets are kept for a week, then cleared away. */
export async function clearOldDeletions(db: ReedDatabase = database()): Promise<void> {
  const weekAgo = new Date(Date.now() - DELETED_DAYS * 24 * 3600 * 1000).toISOString();
  await writing(db, async () => {
    const old = await db.cards.where('deletedAt').below(weekAgo).primaryKeys();
    // The record decides: a card may be older than its sheet.
    const records = await db.sheets.bulkGet(old);
    const gone = records.flatMap((r) => (r && isDeleted(r) && r.deletedAt! < weekAgo ? r : []));
    await remove(gone, db);
  });
}

/**
 * Bring the demo sheets back as they were. Whatever stands in their place and is not the same is
 * first set aside under a new id and name: worked on, deleted, damaged or of a newer program.
 *
 * @returns how many were set aside
 */
export async function restoreDemo(db: ReedDatabase = database()): Promise<number> {
  const [sheets, drivers] = await Promise.all([madeDemo(now()), madeDrivers()]);
  return writing(db, async () => {
    let aside = 0;
    await putDrivers(drivers, db);
    for (const fresh of sheets) {
      const record = await db.sheets.get(fresh.id);
      if (record) {
        const stored = await readRecord(record, db);
        if ('problem' in stored) {
          await setAside(record, db);
          aside++;
        } else if (!isAsMade(stored.sheet, fresh)) {
          const title = nameWith(stored.sheet.title, ' (yours)', SHEET_LIMITS.name);
          const own: Sheet = { ...stored.sheet, id: newId(), title };
          delete own.demo;
          await put(own, db, isDeleted(record) ? record.deletedAt : null);
          aside++;
        }
      }
      await put(fresh, db);
    }
    return aside;
  });
}

/** Whether a demo sheet holds what it was made with, however often it was stored. */
function isAsMade(sheet: Sheet, made: Sheet): boolean {
  const work = ({ title, ask, parts, ways, readings, keeps, bank, crossover }: Sheet) =>
    JSON.stringify({
      title,
      ask,
      parts,
      ways,
      readings,
      keeps: keeps.map((k) => ({ ...k, at: '' })),
      bank,
      crossover,
    });
  // Read like the stored one, so that their fields stand in the same order.
  return work(readSheet(made)) === work(sheet);
}

/**
 * What can be read of a damaged record, as a sheet of its own. The record stays as it is.
 */
export async function openReadable(id: string, db: ReedDatabase = database()): Promise<Salvage> {
  const record = await db.sheets.get(id);
  if (!record) throw new ReedError('document', 'the sheet is no longer there.');
  const [{ document }] = await whole([record], db);
  const { sheet, leftOut } = salvageSheet(document, newId(), now());
  return { sheet: await copySheet(sheet, ' (what could be read)', db), leftOut };
}

/** Keep a record that cannot be read beside the one that takes its place, to the last byte. */
async function setAside(record: SheetRecord, db: ReedDatabase): Promise<string> {
  const [found] = await whole([record], db);
  const aside = { ...found, id: newId() };
  await db.sheets.add(aside);
  const card = cardOf(aside, await readRecord(aside, db));
  await db.cards.put(card);
  return card.title;
}

/** @param stored the record that it takes the place of, where that was read */
async function put(
  sheet: Sheet,
  db: ReedDatabase,
  deletedAt: string | null = null,
  stored?: SheetRecord,
): Promise<void> {
  const record = recordOf(sheet, deletedAt);
  await db.sheets.put(record);
  if (!namesKeepsOf(stored, sheet)) await putKeeps(sheet, db);
  await db.cards.put(cardOfSheet(record, sheet, await db.cards.get(sheet.id)));
}

/** Sheets, their cards and keeps, what they refer to and the book change together or not at all. */
function writing<T>(db: ReedDatabase, write: () => Promise<T>): Promise<T> {
  const library = LIBRARY_TABLES.map((table) => db[table]);
  const tables = [db.sheets, db.cards, db.keeps, db.book, db.states, ...library];
  return db.transaction('rw', tables, write);
}
