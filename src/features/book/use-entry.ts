import { useCallback, useMemo } from 'react';
import type { BookEntry } from '@/core/book/entry';
import { sheetInState } from '@/core/book/state';
import { messageOf } from '@/core/errors';
import { SHEET_VERSION, type Sheet } from '@/core/sheet/schema';
import { entryOf } from '@/store/book';
import { database } from '@/store/database';
import { solvedByLibrary } from '@/store/library';
import { useLiveQuery } from '@/store/live';
import { loadSheet } from '@/store/sheets';
import { stateOf } from '@/store/states';

/** A line with the states that it speaks of. */
export interface OpenEntry {
  entry: BookEntry;
  /** The sheet as it is now; nothing where it is gone. */
  today: Sheet | null;
  before: Sheet | null;
  after: Sheet | null;
  /** What is to be said of what could not be read. */
  problem: string | null;
}

/** The line that is looked at, kept up to date; nothing while it is read. */
export function useEntry(id: string): { found: OpenEntry | null; problem: string | null } {
  const query = useCallback(
    () =>
      openEntry(id).then(
        (found) => ({ id, found, problem: null }),
        (error: unknown) => ({ id, found: null, problem: messageOf(error) }),
      ),
    [id],
  );
  const result = useLiveQuery(query);
  return useMemo(() => (result?.id === id ? result : { found: null, problem: null }), [result, id]);
}

/** @throws ReedError `document` when it is gone or cannot be read */
export async function openEntry(id: string): Promise<OpenEntry> {
  const entry = await entryOf(id);
  const stored = entry.sheet === undefined ? undefined : await loadSheet(entry.sheet);
  const today = stored && 'sheet' in stored ? stored.sheet : null;
  let problem: string | null = null;
  const state = async (key: string | undefined): Promise<Sheet | null> => {
    if (key === undefined) return null;
    try {
      return sheetInState(today ?? emptySheet(entry), await stateOf(key, database()));
    } catch (error) {
      problem ??= messageOf(error);
      return null;
    }
  };
  const [before, kept] = [await state(entry.before), await state(entry.after)];
  // A line that nothing followed ends in the sheet as it is.
  const after = kept ?? (entry.after === undefined && entry.before ? today : null);
  const states = [today, before, after];
  const solved = await solvedByLibrary(states.filter((s) => s !== null));
  const [ofToday, ofBefore, ofAfter] = states.map((s) => (s ? solved.shift()! : null));
  return { entry, today: ofToday, before: ofBefore, after: ofAfter, problem };
}

/** What stands around a state whose sheet is gone. */
const emptySheet = ({ id, at, name }: BookEntry): Sheet =>
  ({
    format: 'jaunty-reed/sheet',
    version: SHEET_VERSION,
    id,
    title: name,
    createdAt: at,
    updatedAt: at,
    revision: 0,
    view: { lens: 'level', fromHz: 20, toHz: 20_000 },
  }) as Sheet;
