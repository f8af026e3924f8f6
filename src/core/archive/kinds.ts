import * as z from 'zod';
import { readBookEntry, type BookEntry } from '@/core/book/entry';
import { readState, type KeptState } from '@/core/book/state';
import { ReedError } from '@/core/errors';
import { LIBRARY } from '@/core/library';
import { readEntry, type Entry, type LibraryTable } from '@/core/library/entry';
import { readSheet } from '@/core/sheet/read';
import type { Sheet } from '@/core/sheet/schema';

/*
 * What an archive holds: each kind of thing is one entry here. Large things have a file each, small
 * ones stand many to a file.
 */

/** A sheet as an archive holds it. */
export interface ArchivedSheet {
  sheet: Sheet;
  /** When it was deleted, where it is kept for a week after that. */
  deletedAt: string | null;
}

/** A state that the book speaks of. */
export interface ArchivedState {
  key: string;
  state: KeptState;
}

/** A record that could not be read where the archive was made: kept to the last letter. */
export interface DamagedRecord {
  table: string;
  id: string;
  document: unknown;
}

/** What is read of each kind. */
export interface ArchivedOf {
  sheet: ArchivedSheet;
  take: Entry;
  driver: Entry;
  part: Entry;
  line: BookEntry;
  state: ArchivedState;
  damaged: DamagedRecord;
  settings: { name: string; value: unknown };
}
export type ArchivedKind = keyof ArchivedOf;

interface ArchiveKind<T> {
  folder: string;
  /** What it is called in a sentence, and several. */
  noun: string;
  plural: string;
  /** How many stand in one file. */
  each: number;
  /** Check and read one. @throws ReedError naming what is wrong */
  read: (document: unknown) => T;
  /** What tells one from another; no two may be alike. */
  idOf: (one: T) => string;
}

const when = z.iso.datetime();

function readArchivedSheet(document: unknown): ArchivedSheet {
  const { sheet, deletedAt } = fieldsOf(document, ['sheet', 'deletedAt']);
  if (deletedAt !== null && !when.safeParse(deletedAt).success)
    throw new ReedError('document', '“deletedAt” must be a date and time in ISO form, or null.');
  return { sheet: readSheet(sheet), deletedAt: deletedAt as string | null };
}

function readArchivedState(document: unknown): ArchivedState {
  const { key, state } = fieldsOf(document, ['key', 'state']);
  return { key: text(key, 'key'), state: readState(state) };
}

/** The named fields of an object that has no others. */
function fieldsOf(document: unknown, names: readonly string[]): Record<string, unknown> {
  if (typeof document !== 'object' || document === null || Array.isArray(document))
    throw new ReedError('document', 'an object was expected.');
  const other = Object.keys(document).find((name) => !names.includes(name));
  if (other !== undefined)
    throw new ReedError('document', `it has a field “${other.slice(0, 40)}” that is not known.`);
  return document as Record<string, unknown>;
}

function text(value: unknown, name: string): string {
  if (typeof value !== 'string' || value.length === 0 || value.length > 200)
    throw new ReedError('document', `“${name}” must be a text of 1 to 200 characters.`);
  return value;
}

const entryKind = (table: LibraryTable, noun: string, plural: string, each: number) => ({
  folder: table,
  noun,
  plural,
  each,
  read: (document: unknown): Entry => readEntry(LIBRARY[table], document),
  idOf: ({ id }: Entry) => id,
});

export const ARCHIVE_KINDS: { readonly [K in ArchivedKind]: ArchiveKind<ArchivedOf[K]> } = {
  sheet: {
    folder: 'sheets',
    noun: 'sheet',
    plural: 'sheets',
    each: 1,
    read: readArchivedSheet,
    idOf: ({ sheet }) => sheet.id,
  },
  take: entryKind('takes', 'take', 'takes', 1),
  driver: entryKind('drivers', 'driver', 'drivers', 50),
  part: entryKind('drawer', 'part of the drawer', 'parts of the drawer', 500),
  line: {
    folder: 'book',
    noun: 'line of the book',
    plural: 'lines of the book',
    each: 200,
    read: readBookEntry,
    idOf: ({ id }) => id,
  },
  state: {
    folder: 'states',
    noun: 'state that the book speaks of',
    plural: 'states that the book speaks of',
    each: 50,
    read: readArchivedState,
    idOf: ({ key }) => key,
  },
  damaged: {
    folder: 'damaged',
    noun: 'record that could not be read',
    plural: 'records that could not be read',
    each: 1,
    read: (document) => {
      const { table, id, document: inside } = fieldsOf(document, ['table', 'id', 'document']);
      return { table: text(table, 'table'), id: text(id, 'id'), document: inside };
    },
    idOf: ({ table, id }) => `${table}/${id}`,
  },
  settings: {
    folder: 'settings',
    noun: 'setting',
    plural: 'settings',
    each: 1,
    read: (document) => {
      const { name, value } = fieldsOf(document, ['name', 'value']);
      return { name: text(name, 'name'), value };
    },
    idOf: ({ name }) => name,
  },
};

export const ARCHIVED_KINDS = Object.keys(ARCHIVE_KINDS) as ArchivedKind[];
