import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { driverEntryKind, type DriverEntry } from './driver';
import { libraryKind, readEntry, type Entry, type LibraryKind, type LibraryTable } from './entry';
import { stockKind, type StockEntry } from './stock';
import { takeKind, type Take } from './take';

/** Every kind of entry, by its table. A new kind is one file and one line here. */
export const LIBRARY: Readonly<Record<LibraryTable, LibraryKind>> = {
  takes: libraryKind(takeKind),
  drivers: libraryKind(driverEntryKind),
  drawer: libraryKind(stockKind),
};

export const LIBRARY_TABLES = Object.keys(LIBRARY) as LibraryTable[];

/** Entries that go together: what a file brings along. */
export interface Library {
  takes: readonly Take[];
  drivers: readonly DriverEntry[];
  drawer: readonly StockEntry[];
}

export const EMPTY_LIBRARY: Library = { takes: [], drivers: [], drawer: [] };

/** A library from lists by table, each checked before. */
export const libraryOf = (entries: (table: LibraryTable) => readonly Entry[]): Library =>
  Object.fromEntries(LIBRARY_TABLES.map((table) => [table, entries(table)])) as unknown as Library;

/**
 * Read what a file brings along: an object of lists by table, any of which may be absent.
 *
 * @throws ReedError `document` naming the entry and what is wrong with it; nothing is half-read
 */
export function readLibrary(document: unknown): Library {
  const refuse = (path: string, why: string) =>
    new ReedError('document', `What goes along cannot be read at ${quoted(path)}: ${why}.`, {
      path,
    });
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw refuse('along', 'an object was expected');
  const lists = document as Record<string, unknown>;
  const unknown = Object.keys(lists).find((table) => !(table in LIBRARY));
  if (unknown !== undefined)
    throw refuse(
      `along.${unknown}`,
      `it is not known here; there are ${LIBRARY_TABLES.join(', ')}`,
    );
  return libraryOf((table) => {
    const list = lists[table] ?? [];
    if (!Array.isArray(list)) throw refuse(`along.${table}`, 'a list was expected');
    const seen = new Set<string>();
    return list.map((one: unknown, i) => {
      const place = `along.${table}[${i}]`;
      const entry = readAt(LIBRARY[table], one, place);
      if (seen.has(entry.id))
        throw refuse(place, `a second ${LIBRARY[table].noun} has the id ${quoted(entry.id)}`);
      seen.add(entry.id);
      return entry;
    });
  });
}

function readAt(kind: LibraryKind, document: unknown, place: string): Entry {
  try {
    return readEntry(kind, document);
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    throw new ReedError(error.code, `${quoted(place)}: ${error.message}`, { path: place });
  }
}
