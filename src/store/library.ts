import { ReedError } from '@/core/errors';
import { EMPTY_LIBRARY, LIBRARY, LIBRARY_TABLES, libraryOf, type Library } from '@/core/library';
import { readEntry, type Entry, type LibraryTable } from '@/core/library/entry';
import { referencesOf, refersToNothing, withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { database, type ReedDatabase } from './database';
import { newId } from './ids';

/*
 * Takes, loudspeakers and the drawer in tables of their own: what sheets refer to by id.
 */

/** Entries that were asked for, and what is to be said of those that are not to be had. */
export interface Found {
  library: Library;
  problems: string[];
}

/** Everything of the library that sheets refer to. */
export async function libraryFor(
  sheets: readonly Sheet[],
  db: ReedDatabase = database(),
): Promise<Found> {
  const references = sheets.map(referencesOf);
  if (references.every(refersToNothing)) return { library: EMPTY_LIBRARY, problems: [] };
  const problems: string[] = [];
  const entries = new Map<LibraryTable, Entry[]>();
  for (const table of LIBRARY_TABLES) {
    const ids = [...new Set(references.flatMap((r) => [...r[table]]))];
    const records = await db[table].bulkGet(ids);
    entries.set(
      table,
      records.flatMap((record, i) => {
        try {
          if (record) return [{ ...readEntry(LIBRARY[table], record.document), id: ids[i] }];
          problems.push(`A ${LIBRARY[table].noun} that it refers to is not in this browser.`);
        } catch (error) {
          if (!(error instanceof ReedError)) throw error;
          problems.push(error.message);
        }
        return [];
      }),
    );
  }
  return { library: libraryOf((table) => entries.get(table)!), problems };
}

/** Sheets as they are solved: with the models of the loudspeakers that their ways end in. */
export async function solvedByLibrary(
  sheets: readonly Sheet[],
  db: ReedDatabase = database(),
): Promise<Sheet[]> {
  const { library } = await libraryFor(sheets, db);
  return sheets.map((sheet) => withDrivers(sheet, library.drivers));
}

/**
 * Put what a file brings along into the library; within a transaction over its tables. An entry that
 * is there already is left alone; one that differs from what stands under its id gets a new one.
 *
 * @returns the new ids of those, by “table/id”
 */
export async function addEntries(along: Library, db: ReedDatabase): Promise<Map<string, string>> {
  const renamed = new Map<string, string>();
  for (const table of LIBRARY_TABLES) {
    const entries = along[table] as readonly Entry[];
    if (entries.length === 0) continue;
    const there = await db[table].bulkGet(entries.map((e) => e.id));
    const fresh = entries.flatMap((entry, i): Entry[] => {
      const stored = there[i];
      if (!stored) return [entry];
      if (isSame(table, stored.document, entry)) return [];
      const id = newId();
      renamed.set(`${table}/${entry.id}`, id);
      return [{ ...entry, id }];
    });
    await db[table].bulkAdd(fresh.map((entry) => ({ id: entry.id, document: entry })));
  }
  return renamed;
}

/** Whether a stored entry says what another does. */
function isSame(table: LibraryTable, document: unknown, entry: Entry): boolean {
  try {
    const stored = readEntry(LIBRARY[table], document);
    // Both read by the same schema, so that their fields stand in the same order.
    return JSON.stringify(stored) === JSON.stringify(readEntry(LIBRARY[table], entry));
  } catch {
    return false;
  }
}

/**
 * Remove takes that belonged to sheets which are gone for good, and to no other; within a transaction.
 * Loudspeakers and parts of the drawer are things of their own and stay.
 */
export async function dropTakes(refers: readonly string[], db: ReedDatabase): Promise<void> {
  for (const reference of new Set(refers)) {
    const [table, id] = [reference.split('/')[0], reference.slice(reference.indexOf('/') + 1)];
    if (table !== 'takes') continue;
    if ((await db.sheets.where('refers').equals(reference).count()) === 0)
      await db.takes.delete(id);
  }
}
