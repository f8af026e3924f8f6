import { liveQuery } from 'dexie';
import { create } from 'zustand';
import type { BookEntry, EntryKind } from '@/core/book/entry';
import { isTakenBack } from '@/core/book/taken-back';
import { entrySearchText, entryWords } from '@/core/book/words';
import { database, type BookRecord, type ReedDatabase } from './database';

/*
 * Every line of the book in short, at hand for lists and for searching: the last ones at once, the
 * others a few thousand at a time, and whatever is written from then on, in any tab.
 */

/** What a list shows of a line. */
export interface Line {
  id: string;
  at: string;
  sheet: string;
  name: string;
  kind: EntryKind | 'damaged';
  text: string;
  /** Everything that it may be looked for by, in small letters. */
  search: string;
  isTakenBack: boolean;
  note: string;
  pictures: number;
}

interface BookLines {
  /** Latest first. */
  lines: readonly Line[];
  /** Whether all of them are at hand. */
  complete: boolean;
}

export const useBookLines = create<BookLines>()(() => ({ lines: [], complete: false }));

const FIRST = 200;
const MORE = 4000;

/** A line in short. What cannot be read is a line that says so. */
export function lineOf({ id, at, sheet, document }: BookRecord): Line {
  try {
    const entry = document as BookEntry;
    return {
      id,
      at,
      sheet,
      name: entry.name,
      kind: entry.kind,
      text: entryWords(entry),
      search: entrySearchText(entry),
      isTakenBack: isTakenBack(entry),
      note: entry.kind === 'note' ? '' : entry.note,
      pictures: entry.pictures.length,
    };
  } catch {
    const text = 'This line is damaged and cannot be read';
    const bare = { isTakenBack: false, note: '', pictures: 0 };
    return { id, at, sheet, name: '', kind: 'damaged', text, search: 'damaged', ...bare };
  }
}

const latestFirst = (a: Line, b: Line): number =>
  a.at < b.at ? 1 : a.at > b.at ? -1 : a.id < b.id ? 1 : -1;

/** Lines with others put in the place of their ids; those without a document go. */
export function withRecords(lines: readonly Line[], records: readonly BookRecord[]): Line[] {
  if (records.length === 0) return [...lines];
  const fresh = new Set(records.map((r) => r.id));
  return [
    ...lines.filter((line) => !fresh.has(line.id)),
    ...records.filter((r) => r.document !== null).map(lineOf),
  ].sort(latestFirst);
}

const take = (records: readonly BookRecord[]) =>
  useBookLines.setState(({ lines }) => ({ lines: withRecords(lines, records) }));

let following = false;

/** From now on have the lines at hand. */
export function followBook(db: ReedDatabase = database()): void {
  if (following) return;
  following = true;
  read(db).catch(() => {
    // Tried again when somebody next looks at the book.
    following = false;
  });
}

async function read(db: ReedDatabase): Promise<void> {
  const last = await db.book.orderBy('touched').last();
  const since = last?.touched ?? 0;
  liveQuery(() => db.book.where('touched').above(since).toArray()).subscribe({
    next: take,
    error: () => undefined,
  });
  const first = await db.book.orderBy('at').reverse().limit(FIRST).toArray();
  take(first);
  // The rest by the order of their ids, which no writing changes.
  const known = new Set(first.map((r) => r.id));
  let [from, some] = ['', [] as BookRecord[]];
  do {
    some = await db.book.where('id').above(from).limit(MORE).toArray();
    from = some.at(-1)?.id ?? '';
    const fresh = some.filter((r) => !known.has(r.id));
    // What was written meanwhile is newer than what is read here.
    const there = new Map(useBookLines.getState().lines.map((l) => [l.id, l]));
    take(fresh.filter((r) => r.touched <= since && !there.has(r.id)));
    await new Promise((resolve) => setTimeout(resolve, 0));
  } while (some.length === MORE);
  useBookLines.setState({ complete: true });
}

/** Lines that hold every typed word, in their order. */
export function findLines(lines: readonly Line[], query: string): readonly Line[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return lines;
  return lines.filter(({ search }) => words.every((w) => search.includes(w)));
}
