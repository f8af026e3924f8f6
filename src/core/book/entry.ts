import * as z from 'zod';
import { CHANGE_KINDS, type Change } from '@/core/differences/change';
import { entryFields, entryId, readEntry } from '@/core/library/entry';

/** How much one line of the book holds. */
export const BOOK_LIMITS = {
  note: 4_000,
  /** Of one change: longer ones are cut. */
  words: 400,
  /** Single steps that one line opens into; what comes after them is another line. */
  steps: 200,
  /** Changes that are written out of one step, and of a line. */
  changes: 40,
  figures: 60,
  pictures: 12,
} as const;

/** What a line tells of. */
export const ENTRY_KINDS = [
  /** A sheet that was made or brought in. */
  'begun',
  /** Asks, values, parts, paths: what turning knobs comes to. */
  'design',
  'keep',
  /** Building and trying a board. */
  'board',
  'take',
  'purchase',
  /** What the person wrote by itself. */
  'note',
  /** Something learned: a lesson whose check was passed. */
  'lesson',
] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

const when = z.iso.datetime({ error: 'must be a date and time in ISO form' });
const words = z
  .string()
  .max(BOOK_LIMITS.words, `must be at most ${BOOK_LIMITS.words} characters long`);
const print = z.string().max(64);

const changeSchema = z.strictObject({
  kind: z.enum(CHANGE_KINDS),
  what: words,
  before: words.nullable(),
  after: words.nullable(),
}) satisfies z.ZodType<Change>;

const changes = z
  .array(changeSchema)
  .max(BOOK_LIMITS.changes, `holds at most ${BOOK_LIMITS.changes} changes`);

/** One edit, or several that follow each other closely and change the same. */
export const stepSchema = z.strictObject({
  at: when,
  changes,
  /** How many further changes it had. */
  more: z.int().positive().optional(),
  /** What it was done by: “Fit”, “Suspect”. */
  by: z.string().max(60).optional(),
  /** Fingerprints of the states before and after. */
  from: print,
  to: print,
  /** Present where it was gone back on. */
  undone: z.literal(true).optional(),
});

const figureSchema = z.strictObject({
  name: words,
  before: z.number().nullable(),
  after: z.number().nullable(),
  words: z.strictObject({ before: words, after: words }),
});

export const bookEntrySchema = z.strictObject({
  ...entryFields('jaunty-reed/book-entry'),
  kind: z.enum(ENTRY_KINDS),
  /** When it began and when it was last added to. */
  at: when,
  until: when,
  /** The sheet that it is about, if any; its `name` is what that was called. */
  sheet: entryId.optional(),
  /** What it comes to: from its first state to its last. */
  changes,
  more: z.int().positive().optional(),
  steps: z.array(stepSchema).max(BOOK_LIMITS.steps, `holds at most ${BOOK_LIMITS.steps} steps`),
  /** Keys of the states before it and after it; where none is after it, the sheet as it is now. */
  before: print.optional(),
  after: print.optional(),
  /** Readings before and after, of the state with this fingerprint. */
  figures: z
    .strictObject({ of: print, list: z.array(figureSchema).max(BOOK_LIMITS.figures) })
    .optional(),
  /** Why, in the person’s own words. */
  note: z
    .string()
    .max(BOOK_LIMITS.note, `must be at most ${BOOK_LIMITS.note} characters long`)
    .default(''),
  pictures: z
    .array(entryId)
    .max(BOOK_LIMITS.pictures, `holds at most ${BOOK_LIMITS.pictures} pictures`)
    .default([]),
});

/** A line of the book. */
export type BookEntry = z.infer<typeof bookEntrySchema>;
export type Step = z.infer<typeof stepSchema>;
export type EntryFigure = z.infer<typeof figureSchema>;

/**
 * Check and read a line, from a file or from the database.
 *
 * @throws ReedError `document` naming the field and what is wrong with it
 */
export const readBookEntry = (document: unknown): BookEntry =>
  readEntry({ noun: 'line of the book', schema: bookEntrySchema }, document);
