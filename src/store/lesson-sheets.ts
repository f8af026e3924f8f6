import { lessonOf } from '@/core/lessons';
import { lessonLine } from './book';
import { database, type ReedDatabase } from './database';
import { newId, now } from './ids';
import { useLessons } from './lessons';
import { isDeleted } from './records';
import { addSheet } from './sheets';

/**
 * The sheet of a lesson: the one that it was begun on, or a fresh one.
 *
 * @param anew whether it is to be a fresh one in any case; the other stays on the shelf
 * @returns its id
 */
export async function sheetOfLesson(
  lesson: string,
  anew = false,
  db: ReedDatabase = database(),
): Promise<string> {
  const there = useLessons.getState().sheets[lesson];
  const record = there === undefined ? undefined : await db.sheets.get(there);
  if (record && !isDeleted(record) && !anew) return record.id;
  const { id } = await addSheet(lessonOf(lesson).begin(newId(), now()), undefined, db);
  useLessons.setState(({ sheets }) => ({ sheets: { ...sheets, [lesson]: id } }));
  return id;
}

/** When each lesson was passed, ISO, by its id. */
export async function learned(db: ReedDatabase = database()): Promise<ReadonlyMap<string, string>> {
  const start = lessonLine('');
  const lines = await db.book.where('id').startsWith(start).toArray();
  // A line that was taken out tells nothing any more.
  return new Map(lines.flatMap((l) => (l.document ? [[l.id.slice(start.length), l.at]] : [])));
}
