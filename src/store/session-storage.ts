import { liveQuery, type Subscription } from 'dexie';
import type { Sheet } from '@/core/sheet/schema';
import { database } from './database';
import { openedBy } from './open-work';
import { storageProblem } from './problems';
import { isDeleted, readRecord, revisionOf } from './records';
import {
  adopt,
  NOTHING_OPEN,
  setQuietly,
  sheetOf,
  takeDoing,
  useSession,
  type Notice,
} from './session-state';
import { shelfReady } from './ready';
import { copySheet, loadSheet, saveSheet, type WhenDeleted } from './sheets';

/*
 * How the open sheet reaches the store and hears of it. Nothing that was edited is dropped: what
 * cannot be stored is tried again until it can, also after the sheet was left, and a version that
 * loses against another tab's goes on as a copy.
 */

/** An edit is stored this soon after it was made, milliseconds; further edits do not put it off. */
const SAVE_DELAY = 10;
/** Edits that follow each other closely are stored together, once in this time, milliseconds. */
const SAVE_PACE = 160;
/** What was refused is tried again after this time, milliseconds. */
const RETRY_DELAY = 1500;

export const COPY_SUFFIX = ' (this tab’s copy)';

let timer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> | undefined;
/** When the last saving began, by `performance.now`. */
let savedAt = -Infinity;
let watching: Subscription | undefined;

export function scheduleSave(): void {
  setQuietly({ unsaved: true });
  flushSoon();
}

function flushSoon(): void {
  const wait = Math.max(SAVE_DELAY, savedAt + SAVE_PACE - performance.now());
  timer ??= setTimeout(() => void flush(), wait);
}

/** Store what has not been stored yet. */
export async function flush(whenDeleted: WhenDeleted = 'tell'): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  while (saving) await saving;
  if (!useSession.getState().unsaved) return;
  savedAt = performance.now();
  saving = store(whenDeleted).finally(() => (saving = undefined));
  await saving;
}

async function store(whenDeleted: WhenDeleted): Promise<void> {
  const before = useSession.getState();
  const sheet = sheetOf(before);
  if (!sheet) return;
  try {
    const result = await saveSheet(sheet, whenDeleted, database(), takeDoing());
    if ('saved' in result) {
      const { aside } = result;
      stored(before, result.saved, {
        ...(aside === undefined ? {} : { notice: asideNotice(aside) }),
      });
    } else if ('gone' in result) {
      if (useSession.getState().frame?.id === sheet.id) setQuietly({ status: { is: 'gone' } });
    } else await goOnAsCopy(before, sheet, 'conflict' in result ? result.conflict : undefined);
  } catch (error) {
    if (useSession.getState().frame?.id !== sheet.id) return;
    setQuietly({ status: { is: 'failed', problem: storageProblem(error) } });
    timer ??= setTimeout(() => void flush(), RETRY_DELAY);
  }
}

type Before = Pick<ReturnType<typeof useSession.getState>, 'content' | 'frame'>;

/** The state `before` is stored as `saved`; edits made meanwhile are stored next. */
function stored(before: Before, saved: Sheet, change: { notice?: Notice } = {}): void {
  const after = useSession.getState();
  if (!after.frame || !after.content || after.frame.id !== before.frame?.id) return;
  const { id, revision, createdAt, updatedAt, demo } = saved;
  const frame = { ...after.frame, id, revision, createdAt, updatedAt };
  if (demo === undefined) delete frame.demo;
  const renamed = saved.title !== before.content?.title && after.content === before.content;
  const unsaved = after.content !== before.content || after.frame !== before.frame;
  setQuietly({
    frame,
    ...(renamed ? { content: { ...after.content, title: saved.title } } : {}),
    unsaved,
    status: { is: 'open' },
    ...change,
  });
  if (unsaved) flushSoon();
}

/** What is open here lost against what is stored: it goes on under a name of its own. */
async function goOnAsCopy(before: Before, mine: Sheet, theirs: Sheet | undefined): Promise<void> {
  const copy = await copySheet(mine, COPY_SUFFIX);
  stored(before, copy, {
    notice: {
      text: theirs
        ? `Another tab has changed “${theirs.title}” at the same time. What you have here goes on as “${copy.title}”; both are on the shelf.`
        : `“${mine.title}” was changed by a newer version of the program, which is left as it is. What you have here goes on as “${copy.title}”. Reload the page to update.`,
      ...(theirs ? { other: { id: mine.id, title: theirs.title } } : {}),
    },
  });
  if (useSession.getState().frame?.id === copy.id) watch(copy.id);
}

const asideNotice = (title: string): Notice => ({
  text: `What was stored of this sheet had been damaged. It is kept as it is on the shelf${title === '' ? '' : `, as “${title}”`}; your sheet is stored in its place.`,
});

/** Sheets that were left before they could be stored, by id. */
const waiting = new Map<string, Sheet>();
let retry: ReturnType<typeof setTimeout> | undefined;

async function storeWaiting(): Promise<void> {
  retry = undefined;
  for (const [id, sheet] of waiting) {
    try {
      const result = await saveSheet(sheet);
      if ('gone' in result) await saveSheet(sheet, 'stay-deleted');
      else if (!('saved' in result)) await copySheet(sheet, COPY_SUFFIX);
      if (waiting.get(id) === sheet) waiting.delete(id);
    } catch {
      // Still refused; said on the way out, and tried again below.
    }
  }
  if (waiting.size > 0) retry ??= setTimeout(() => void storeWaiting(), RETRY_DELAY);
}

/** Whether closing the page now would lose an edit that the store has refused. */
export function wouldLose(): boolean {
  const { unsaved, status } = useSession.getState();
  return waiting.size > 0 || (unsaved && (status.is === 'failed' || status.is === 'gone'));
}

openedBy({ sheet: () => sheetOf(useSession.getState()), wouldLose, flush: () => flush() });

/** Put the open sheet down; what is not stored is kept in this tab until it is. */
export async function leaveSheet(): Promise<void> {
  await flush();
  clearTimeout(timer);
  timer = undefined;
  watching?.unsubscribe();
  watching = undefined;
  const state = useSession.getState();
  const sheet = sheetOf(state);
  if (sheet && state.unsaved) {
    waiting.set(sheet.id, sheet);
    retry ??= setTimeout(() => void storeWaiting(), 0);
  }
  setQuietly(NOTHING_OPEN);
}

/** Counts openings: one that was overtaken by another changes nothing any more. */
let openings = 0;
/** The opening under way, if any. */
let underWay: { id: string; done: Promise<void> } | undefined;

/**
 * Open a sheet and follow what other tabs do to it. One that is open already, or being opened, stays
 * as it is.
 */
export function openSheet(id: string): Promise<void> {
  if (underWay?.id === id) return underWay.done;
  const done = openNow(id, ++openings).finally(() => {
    if (underWay?.done === done) underWay = undefined;
  });
  underWay = { id, done };
  return done;
}

async function openNow(id: string, opening: number): Promise<void> {
  if (useSession.getState().frame?.id === id) return;
  await leaveSheet();
  // A store that cannot be opened is told of by the shell; here the sheet is then simply not found.
  await shelfReady().catch(() => undefined);
  if (opening !== openings) return;
  const left = waiting.get(id);
  if (left) {
    waiting.delete(id);
    adopt(left, { unsaved: true });
    watch(id);
    await flush();
    return;
  }
  const found = await loadSheet(id).catch(() => undefined);
  if (opening !== openings) return;
  if (!found) setQuietly({ status: { is: 'missing' } });
  else if ('problem' in found)
    setQuietly({ status: { is: 'damaged', problem: found.problem, document: found.document } });
  else {
    adopt(found.sheet);
    watch(id);
  }
}

function watch(id: string): void {
  watching?.unsubscribe();
  watching = liveQuery(() => database().sheets.get(id)).subscribe({
    next: (record) => {
      const { frame, unsaved, status } = useSession.getState();
      if (frame?.id !== id) return;
      if (!record || isDeleted(record)) {
        if (!saving) setQuietly({ status: { is: 'gone' } });
        return;
      }
      if (status.is === 'gone') {
        // Brought back elsewhere.
        setQuietly({ status: { is: 'open' } });
        if (unsaved) void flush();
      }
      if (saving || revisionOf(record) <= frame.revision) return;
      // With edits of our own, saving finds out what became of them.
      if (unsaved) void flush();
      else {
        void readRecord(record, database()).then((theirs) => {
          const now = useSession.getState();
          if (now.frame?.id !== id || now.unsaved || !('sheet' in theirs)) return;
          if (theirs.sheet.revision > now.frame.revision) adopt(theirs.sheet);
        });
      }
    },
    error: () => undefined,
  });
}

/** The open sheet was deleted elsewhere, and should be back. */
export async function bringBack(): Promise<void> {
  setQuietly({ unsaved: true });
  await flush('bring-back');
}

/** The open sheet was deleted elsewhere, and should stay so: the last edits go with it. */
export async function leaveDeleted(): Promise<void> {
  if (useSession.getState().unsaved) await flush('stay-deleted');
  setQuietly({ unsaved: false });
  await leaveSheet();
}

export const dismissNotice = (): void => setQuietly({ notice: null });
