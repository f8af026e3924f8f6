import * as z from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { entryId } from '@/core/library/entry';
import { followOtherTabs } from './other-tabs';

interface LessonsState {
  /** The sheet that each lesson was begun on. What was learned stands in the book. */
  sheets: Readonly<Record<string, string>>;
}

const KEY = 'jaunty-reed-lessons';
// Above the store: that reads what was kept while it is being made.
const sheetsSchema = z.record(z.string().max(64), entryId);

/** Which sheets are those of lessons; kept in this browser. */
export const useLessons = create<LessonsState>()(
  persist((): LessonsState => ({ sheets: {} }), {
    name: KEY,
    version: 1,
    merge: (stored, state) => ({ ...state, ...readLessons(stored) }),
  }),
);

followOtherTabs(useLessons, KEY);

/** What can be read of what was stored; what cannot is as if nothing had been begun. */
export function readLessons(stored: unknown): LessonsState {
  const { sheets } = (stored ?? {}) as { sheets?: unknown };
  const { success, data } = sheetsSchema.safeParse(sheets);
  return { sheets: success ? data : {} };
}

/** The lesson that a sheet was begun for. */
export const lessonOfSheet = ({ sheets }: LessonsState, sheet: string): string | undefined =>
  Object.keys(sheets).find((lesson) => sheets[lesson] === sheet);
