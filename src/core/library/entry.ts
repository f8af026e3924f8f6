import * as z from 'zod';
import { checkBounds } from '@/core/document/bounded';
import { firstIssue, type Complaint } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';

/** Names of the tables that stand beside the sheets. */
export type LibraryTable = 'takes' | 'drivers' | 'drawer';

/** What every entry of the library has; sheets refer to it by its id. */
export interface Entry {
  format: string;
  version: number;
  id: string;
  name: string;
}

/** How a kind of document is checked and read. */
export interface ReadKind<T> {
  /** In a sentence: “the take”. */
  noun: string;
  schema: z.ZodType<T>;
  /** A document as it was written before, brought into its present form. */
  migrate?: (document: unknown) => unknown;
  /** What is wrong with it beyond its single fields. */
  fault?: (document: T) => Complaint | null;
}

/**
 * Everything to be known of one kind of entry. What is large, or belongs to more than one sheet, is
 * an entry of the library; sheets name it by id, and a sheet's file brings it along.
 */
export interface LibraryKind<T extends Entry = Entry> extends ReadKind<T> {
  table: LibraryTable;
}

export const entryId = z
  .string()
  .min(1, 'must not be empty')
  .max(64, 'must be at most 64 characters long');

/** The fields that every kind of entry begins with. */
export const entryFields = <F extends string>(format: F) => ({
  format: z.literal(format, { error: `must be "${format}"` }),
  version: z.literal(1, { error: 'must be 1: a newer one needs a newer program' }),
  id: entryId,
  name: z.string().max(120, 'must be at most 120 characters long'),
});

/** A kind without its type, for tables of kinds: its fault is only asked about what passed its schema. */
export const libraryKind = <T extends Entry>(kind: LibraryKind<T>): LibraryKind =>
  kind as unknown as LibraryKind;

/**
 * Check and read an entry, or another document of its own kind, from a file or from the database.
 *
 * @throws ReedError `document` naming the field and what is wrong with it; nothing is half-read
 */
export function readEntry<T>(kind: ReadKind<T>, document: unknown): T {
  checkBounds(document);
  const migrated = kind.migrate?.(document) ?? document;
  const result = kind.schema.safeParse(migrated);
  const complaint = result.success
    ? (kind.fault?.(result.data) ?? null)
    : firstIssue(result.error, migrated);
  if (complaint) {
    const { path, message } = complaint;
    const where = path === '' ? ': it' : ` at ${quoted(path)}:`;
    throw new ReedError('document', `The ${kind.noun} cannot be read${where} ${message}.`, {
      path,
    });
  }
  return result.data!;
}
