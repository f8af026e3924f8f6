import { readBookEntry, type BookEntry, type EntryFigure, type EntryKind } from '@/core/book/entry';
import { cutChanges, gathers, logged } from '@/core/book/log';
import { printOfSheet } from '@/core/book/state';
import type { Change } from '@/core/differences/change';
import { changesBetween, type SheetState } from '@/core/differences/differences';
import { namesOfEntries, type NamesOfEntries } from '@/core/differences/names';
import { ReedError } from '@/core/errors';
import { referencesOf } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { cut, quoted } from '@/core/text';
import { database, type BookRecord, type ReedDatabase } from './database';
import { newId, now } from './ids';
import { keepState, stateOf } from './states';

/*
 * The book: lines that are written in the same transaction as what they tell of, so that neither is
 * ever stored without the other.
 */

/** Lines of a sheet that are looked at to tell where a change belongs. */
const RECENT = 12;

/** When a line was last written, rising: whoever shows lines asks for what came after. */
let lastTouch = 0;
function touch(): number {
  lastTouch = Math.max(Date.now(), lastTouch + 0.001);
  return lastTouch;
}

/** A line as it is stored. */
export const bookRecordOf = (entry: BookEntry): BookRecord => ({
  id: entry.id,
  sheet: entry.sheet ?? '',
  at: entry.at,
  touched: touch(),
  document: entry,
});

/** Lines that can be read; one that cannot is told of where it is shown. */
const readable = (records: readonly BookRecord[]): BookEntry[] =>
  records.flatMap((record) => {
    try {
      return [readBookEntry(record.document)];
    } catch {
      return [];
    }
  });

/** The lines of a sheet that are looked through at most. */
const MOST_OF_SHEET = 200;

/** The last lines of a sheet, latest first. */
export const entriesOf = async (
  sheet: string,
  db: ReedDatabase = database(),
): Promise<BookEntry[]> => (await recentOf(sheet, db, MOST_OF_SHEET)).reverse();

async function recentOf(sheet: string, db: ReedDatabase, most = RECENT): Promise<BookEntry[]> {
  const records = await db.book
    .where('[sheet+at]')
    .between([sheet, ''], [sheet, '\uffff'])
    .reverse()
    .limit(most)
    .toArray();
  return readable(records).reverse();
}

/**
 * Write down what a sheet is stored with; within the transaction that stores it.
 *
 * @param by what it was done by, where that is more than an edit
 */
export async function logChange(
  before: Sheet,
  after: Sheet,
  db: ReedDatabase,
  by?: string,
): Promise<void> {
  if (isSameWork(before, after)) return;
  const names = await namesFor(before, after, db);
  const changes = toldBetween(before, after, names);
  if (changes.length === 0) return;
  const recent = await recentOf(after.id, db);
  const { put, head, begins } = logged(recent, {
    id: newId,
    at: now(),
    sheet: after.id,
    name: after.title,
    changes,
    from: printOfSheet(before),
    to: printOfSheet(after),
    ...(by === undefined ? {} : { by }),
  });
  const lines = new Map(put.map((line) => [line.id, line]));
  const left = () => keepState(before, db);
  if (begins && head) {
    const key = await left();
    head.before = key;
    // What was written before ends where this begins.
    for (const line of recent)
      if (line.steps.length > 0 && line.after === undefined)
        lines.set(line.id, { ...line, after: key });
  } else {
    // What is gone back on can still be looked at.
    for (const line of put)
      if (line !== head && line.after === undefined && line.steps.some((s) => s.undone))
        lines.set(line.id, { ...line, after: await left() });
    if (head?.before !== undefined && gathers(head.kind)) {
      const open = { ...(lines.get(head.id) ?? head) };
      delete open.after;
      delete open.more;
      lines.set(head.id, { ...open, ...(await comesTo(head, after, names, db)) });
    }
  }
  await db.book.bulkPut([...lines.values()].map(bookRecordOf));
}

/**
 * What changed, in words. A state that cannot be told of in words, for whatever reason, is stored all
 * the same: the line says that much, and has both states.
 */
function toldBetween(before: SheetState, after: SheetState, names: NamesOfEntries): Change[] {
  try {
    return changesBetween(before, after, names);
  } catch {
    return [{ kind: 'value', what: 'The sheet', before: 'as it was', after: 'otherwise' }];
  }
}

/** What a line comes to, from the state before it to the present one. */
async function comesTo(
  { before, changes, more }: BookEntry,
  after: SheetState,
  names: NamesOfEntries,
  db: ReedDatabase,
): Promise<Pick<BookEntry, 'changes' | 'more'>> {
  try {
    const { title, design } = await stateOf(before!, db);
    const { keeps = [] } = after;
    return {
      more: undefined,
      ...cutChanges(toldBetween({ ...design, title, keeps }, after, names)),
    };
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return { changes, more };
  }
}

/** Whether nothing but how it is looked at, or when it was stored, can differ. */
function isSameWork(before: Sheet, after: Sheet): boolean {
  const aside = new Set(['view', 'updatedAt', 'revision']);
  return (Object.keys({ ...before, ...after }) as (keyof Sheet)[]).every(
    (field) => aside.has(field) || before[field] === after[field],
  );
}

/** What the entries are called that one state refers to and the other does not. */
async function namesFor(before: Sheet, after: Sheet, db: ReedDatabase): Promise<NamesOfEntries> {
  if (before.boards === after.boards && before.ways === after.ways) return new Map();
  const [was, is] = [referencesOf({ ...before, keeps: [] }), referencesOf({ ...after, keeps: [] })];
  const named = async (table: 'takes' | 'drivers' | 'drawer') => {
    const both = new Set([...was[table], ...is[table]]);
    const ids = [...both].filter((id) => !was[table].has(id) || !is[table].has(id));
    const records = ids.length === 0 ? [] : await db[table].bulkGet(ids);
    return records.flatMap((r) => {
      const name = (r?.document as { name?: unknown } | undefined)?.name;
      return r && typeof name === 'string' ? [{ id: r.id, name }] : [];
    });
  };
  return namesOfEntries({
    takes: await named('takes'),
    drivers: await named('drivers'),
    drawer: await named('drawer'),
  });
}

/** A line that tells of one thing that was done. */
function single(kind: EntryKind, name: string, changes: readonly Change[]): BookEntry {
  const at = now();
  return {
    format: 'jaunty-reed/book-entry',
    version: 1,
    id: newId(),
    name: cut(name, 120),
    kind,
    at,
    until: at,
    ...cutChanges(changes),
    steps: [],
    note: '',
    pictures: [],
  };
}

/** More sheets than these at once are told of in one line. */
const FEW = 5;

/** Write down that sheets are new on the shelf; within the transaction that stores them. */
export async function logBegun(sheets: readonly Sheet[], db: ReedDatabase): Promise<void> {
  const begun = ({ title }: Sheet): Change => ({
    kind: 'name',
    what: 'New on the shelf',
    before: null,
    after: quoted(title),
  });
  if (sheets.length > FEW) {
    const line = single('begun', `${sheets.length} sheets`, sheets.map(begun));
    await db.book.put(bookRecordOf(line));
    return;
  }
  for (const sheet of sheets) {
    const line = single('begun', sheet.title, [begun(sheet)]);
    const after = await keepState(sheet, db);
    await db.book.put(bookRecordOf({ ...line, sheet: sheet.id, after }));
  }
}

/** Before a sheet is removed for good: the lines that end in its present state keep that. */
export async function keepLastState(sheet: Sheet, db: ReedDatabase): Promise<void> {
  const open = (await recentOf(sheet.id, db)).filter(
    (line) => line.steps.length > 0 && line.after === undefined,
  );
  if (open.length === 0) return;
  const after = await keepState(sheet, db);
  await db.book.bulkPut(open.map((line) => bookRecordOf({ ...line, after })));
}

/** Something that was bought. */
export interface Bought {
  what: string;
  pieces: number;
}

/** Write down what was bought and what it cost. */
export async function logPurchase(
  total: number,
  bought: readonly Bought[],
  db: ReedDatabase = database(),
): Promise<void> {
  const line = single(
    'purchase',
    `Bought for ${total.toFixed(2)}`,
    bought.map(({ what, pieces }) => ({
      kind: 'part',
      what: `${pieces} × ${what}`,
      before: null,
      after: '',
    })),
  );
  await db.book.put(bookRecordOf(line));
}

/** Under this name stands the line that a lesson was passed; there is one for each. */
export const lessonLine = (lesson: string): string => `lesson-${lesson}`;

/** Write down that a lesson was passed, and what the sheet answered; the first time counts. */
export function logLesson(
  lesson: { id: string; title: string },
  answers: readonly { what: string; is: string }[],
  sheet: Sheet,
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.book, db.states, async () => {
    const id = lessonLine(lesson.id);
    if (await db.book.get(id)) return;
    const line = {
      ...single(
        'lesson',
        lesson.title,
        answers.map(({ what, is }) => ({ kind: 'reading', what, before: null, after: is })),
      ),
      id,
      sheet: sheet.id,
      after: await keepState(sheet, db),
    };
    await db.book.put(bookRecordOf(line));
  });
}

/** A note of the person’s own, about a sheet or about nothing in particular. */
export async function addNote(
  text: string,
  about?: Pick<Sheet, 'id' | 'title'>,
  db: ReedDatabase = database(),
): Promise<string> {
  const line = {
    ...single('note', about?.title ?? '', []),
    note: text,
    ...(about ? { sheet: about.id } : {}),
  };
  await db.book.put(bookRecordOf(readBookEntry(line)));
  return line.id;
}

/**
 * Change a line by hand: its note or its pictures.
 *
 * @throws ReedError `document` when it is gone or would not read back
 */
export function changeEntry(
  id: string,
  change: (entry: BookEntry) => Partial<Pick<BookEntry, 'note' | 'pictures' | 'figures'>>,
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.book, async () => {
    const entry = await entryOf(id, db);
    await db.book.put(bookRecordOf(readBookEntry({ ...entry, ...change(entry) })));
  });
}

/** Store the readings of a line, unless it has gone on meanwhile. */
export function putFigures(
  id: string,
  of: string,
  list: EntryFigure[],
  db: ReedDatabase = database(),
): Promise<void> {
  return db.transaction('rw', db.book, async () => {
    const record = await db.book.get(id);
    const [entry] = readable(record ? [record] : []);
    if (entry && figuresDue(entry) === of)
      await db.book.put(bookRecordOf({ ...entry, figures: { of, list } }));
  });
}

/** Of which state a line wants its readings; nothing where it has them, or there are none to be had. */
export function figuresDue({ before, steps, figures }: BookEntry): string | null {
  if (before === undefined) return null;
  const to = steps.findLast((s) => !s.undone)?.to;
  return to === undefined || figures?.of === to ? null : to;
}

/** The last lines of a sheet that have not been given their readings. */
export const entriesDue = async (
  sheet: string,
  db: ReedDatabase = database(),
): Promise<BookEntry[]> => (await recentOf(sheet, db)).filter((e) => figuresDue(e) !== null);

/** @throws ReedError `document` when it is gone or cannot be read */
export async function entryOf(id: string, db: ReedDatabase = database()): Promise<BookEntry> {
  const record = await db.book.get(id);
  if (!record || record.document === null)
    throw new ReedError('document', 'That line is no longer in the book.');
  return readBookEntry(record.document);
}

/** Take a line out; what stands behind it stays for others that speak of it. */
export async function removeEntry(id: string, db: ReedDatabase = database()): Promise<void> {
  await db.transaction('rw', db.book, db.pictures, async () => {
    const record = await db.book.get(id);
    if (!record) return;
    const { pictures } = record.document as { pictures?: unknown };
    if (Array.isArray(pictures)) await db.pictures.bulkDelete(pictures as string[]);
    await db.book.put({ ...record, sheet: '', touched: touch(), document: null });
  });
}

/** Put back a line that was just taken out, without its pictures. */
export const putBackEntry = async (
  entry: BookEntry,
  db: ReedDatabase = database(),
): Promise<void> => {
  await db.book.put(bookRecordOf({ ...entry, pictures: [] }));
};
