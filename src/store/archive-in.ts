import type { ArchiveReader } from '@/core/archive/reader';
import type { ArchivedSheet } from '@/core/archive/kinds';
import type { BookEntry } from '@/core/book/entry';
import { textOfState } from '@/core/book/state';
import { without } from '@/core/differences/leaves';
import { canonicalText } from '@/core/document/print';
import { LIBRARY_TABLES } from '@/core/library';
import type { Entry, LibraryTable } from '@/core/library/entry';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Sheet } from '@/core/sheet/schema';
import { nameWith } from '@/core/text';
import { archivedTables, LIBRARY_KINDS } from './archive-out';
import { bookRecordOf, logChange } from './book';
import { cardOfSheet } from './cards';
import { database, type ReedDatabase } from './database';
import { newId } from './ids';
import { putKeeps } from './keeps';
import { typeOfPicture } from './pictures';
import { KEPT_SETTINGS } from './kept-settings';
import { readRecord, recordOf } from './records';
import { pack } from './states';

/*
 * An archive taken back in: looked through first, then written in one transaction. Whatever happens
 * on the way, all of it is there afterwards or nothing.
 */

/** What is done where the same thing is here and is another: sheets alone can be kept both. */
export type Choice = 'mine' | 'theirs' | 'both';

/** Something that is here and in the archive, and not the same. */
export interface Conflict {
  /** “sheet/ID”. */
  key: string;
  kind: 'sheet' | LibraryTable;
  name: string;
  /** When it was changed last, where that is known. */
  hereAt: string | null;
  thereAt: string | null;
}

/** What taking an archive in would do. */
export interface Plan {
  /** How many things are new here, are the same, and are other than here. */
  fresh: number;
  same: number;
  conflicts: Conflict[];
}

/** What a sheet holds, whatever it was looked at through and however often it was stored. */
const workOf = (sheet: Sheet): string =>
  canonicalText(without(sheet, ['view', 'revision', 'updatedAt', 'createdAt', 'demo']));

/** A demo sheet that nobody has touched gives way. */
const isUntouched = ({ demo, revision }: Sheet): boolean => demo !== undefined && revision === 0;

/**
 * Look an archive through, all of it: what of it is new here, and what is other than here.
 *
 * @throws ReedError `document` where anything of it cannot be read
 */
export async function planFor(reader: ArchiveReader, db: ReedDatabase = database()): Promise<Plan> {
  const plan: Plan = { fresh: 0, same: 0, conflicts: [] };
  const note = (meets: Meeting, conflict: () => Conflict) => {
    if (meets === 'fresh') plan.fresh++;
    else if (meets === 'same') plan.same++;
    else plan.conflicts.push(conflict());
  };
  for (const { one } of reader.all('sheet')) {
    const { meets, here } = await meetingOf(one, db);
    note(meets, () => ({
      key: `sheet/${one.sheet.id}`,
      kind: 'sheet',
      name: one.sheet.title,
      hereAt: here?.updatedAt ?? null,
      thereAt: one.sheet.updatedAt,
    }));
  }
  for (const table of LIBRARY_TABLES)
    for (const { one } of reader.all(LIBRARY_KINDS[table]))
      note(await entryMeets(one, table, db), () => ({
        key: `${table}/${one.id}`,
        kind: table,
        name: one.name,
        hereAt: null,
        thereAt: null,
      }));
  for (const { one } of reader.all('line')) plan[(await db.book.get(one.id)) ? 'same' : 'fresh']++;
  // Read for what may be wrong with them.
  for (const kind of ['state', 'damaged', 'settings'] as const)
    for (const found of reader.all(kind)) void found;
  for (const found of reader.pictures()) void found;
  return plan;
}

type Meeting = 'fresh' | 'same' | 'conflict';

async function meetingOf(
  { sheet }: ArchivedSheet,
  db: ReedDatabase,
): Promise<{ meets: Meeting; here?: Sheet }> {
  const record = await db.sheets.get(sheet.id);
  if (!record) return { meets: 'fresh' };
  const read = await readRecord(record, db);
  // What cannot be read here stays beside what can be read there.
  if ('problem' in read) return { meets: 'conflict' };
  const here = read.sheet;
  if (workOf(here) === workOf(sheet)) return { meets: 'same', here };
  if (isUntouched(here)) return { meets: 'fresh', here };
  return { meets: isUntouched(sheet) ? 'same' : 'conflict', here };
}

async function entryMeets(entry: Entry, table: LibraryTable, db: ReedDatabase): Promise<Meeting> {
  const record = await db[table].get(entry.id);
  if (!record) return 'fresh';
  return canonicalText(record.document) === canonicalText(entry) ? 'same' : 'conflict';
}

export interface TakeIn {
  /** Whether everything that is here goes first. */
  replace: boolean;
  /** What is done about each conflict, by its key; mine stays where nothing is said. */
  choices: ReadonlyMap<string, Choice>;
  /** Whether preferences and practice of the archive are taken too. */
  settings: boolean;
}

/**
 * Take an archive in.
 *
 * @param progress told how much of it is done, from 0 to 1
 * @throws ReedError where anything of it cannot be read or stored: everything is as it was then
 */
export async function takeIn(
  reader: ArchiveReader,
  { replace, choices, settings }: TakeIn,
  progress: (done: number) => void = () => undefined,
  db: ReedDatabase = database(),
): Promise<void> {
  const all = Object.values(reader.index.counts).reduce((sum, n) => sum + n, 1);
  let done = 0;
  const step = () => {
    if (++done % 20 === 0) progress(Math.min(1, done / all));
  };
  const tables = [...archivedTables(db), db.cards];
  await db.transaction('rw', tables, async () => {
    if (replace) for (const table of tables) await table.clear();
    for (const table of LIBRARY_TABLES)
      for (const { one } of reader.all(LIBRARY_KINDS[table])) {
        const meets = await entryMeets(one, table, db);
        if (
          meets === 'fresh' ||
          (meets === 'conflict' && choices.get(`${table}/${one.id}`) === 'theirs')
        )
          await db[table].put({ id: one.id, document: one });
        step();
      }
    for (const { one } of reader.all('line')) {
      await putLine(one, db);
      step();
    }
    for (const { one } of reader.all('state')) {
      if (!(await db.states.get(one.key)))
        await db.states.put({ key: one.key, packed: pack(textOfState(one.state)) });
      step();
    }
    for (const { id, bytes } of reader.pictures()) {
      const type = typeOfPicture(bytes);
      if (type !== undefined && !(await db.pictures.get(id)))
        await db.pictures.put({ id, type, bytes });
      step();
    }
    for (const { one } of reader.all('sheet')) {
      await putSheet(one, choices.get(`sheet/${one.sheet.id}`) ?? 'mine', db);
      step();
    }
    for (const { one } of reader.all('damaged')) await putDamaged(one, db);
  });
  if (settings) takeSettings(reader);
  progress(1);
}

async function putSheet(archived: ArchivedSheet, choice: Choice, db: ReedDatabase): Promise<void> {
  const { sheet, deletedAt } = archived;
  const { meets, here } = await meetingOf(archived, db);
  if (meets === 'same' || (meets === 'conflict' && choice === 'mine')) return;
  const isBoth = meets === 'conflict' && (choice === 'both' || !here);
  const taken: Sheet = isBoth
    ? {
        ...sheet,
        id: newId('s'),
        title: nameWith(sheet.title, ' (from the archive)', SHEET_LIMITS.name),
      }
    : // Other tabs notice by the revision that it is another.
      { ...sheet, ...(here ? { revision: Math.max(here.revision, sheet.revision) + 1 } : {}) };
  const record = recordOf(taken, deletedAt);
  await db.sheets.put(record);
  await putKeeps(taken, db);
  await db.cards.put(cardOfSheet(record, taken));
  if (here && !isBoth) await logChange(here, taken, db, 'Archive');
}

/** A line that is here already is the one that was written on last. */
async function putLine(line: BookEntry, db: ReedDatabase): Promise<void> {
  const here = (await db.book.get(line.id))?.document as Partial<BookEntry> | null | undefined;
  const written = ({ steps = [], note = '', pictures = [] }: Partial<BookEntry>) =>
    steps.length + note.length + pictures.length;
  if (!here || written(here) < written(line)) await db.book.put(bookRecordOf(line));
}

/** What could not be read there is kept here as it is, where nothing stands in its place. */
async function putDamaged(
  { table, id, document }: { table: string; id: string; document: unknown },
  db: ReedDatabase,
): Promise<void> {
  if (table === 'sheets') {
    if (await db.sheets.get(id)) return;
    await db.sheets.put({ id, updatedAt: '', revision: 0, deletedAt: null, document });
  } else if (table === 'takes' || table === 'drivers' || table === 'drawer') {
    if (!(await db[table].get(id))) await db[table].put({ id, document });
  }
}

function takeSettings(reader: ArchiveReader): void {
  for (const { one } of reader.all('settings'))
    if (Object.hasOwn(KEPT_SETTINGS, one.name)) KEPT_SETTINGS[one.name].take(one.value);
}
