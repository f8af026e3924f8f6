import { gate } from '@/core/sheet/gate';
import type { Sheet } from '@/core/sheet/schema';
import { scheduleSave } from './session-storage';
import {
  sessionHistory,
  setQuietly,
  takeDoing,
  useSession,
  type SheetContent,
  type SheetFrame,
} from './session-state';

/*
 * Changing the open sheet. Every change passes the gate before it is shown, so that what is on
 * screen can always be stored and read again.
 */

export { doneBy, sheetOf, useSession, useSheet, type SheetContent } from './session-state';

/** Edits of the same group within this time undo together, milliseconds. */
const GROUP_TIME = 1000;

/** How a change came about: by an edit, or by going back or forth among those that were made. */
type Change = 'edited' | 'gone to';
type Listener = (before: SheetContent, after: SheetContent, how: Change) => void;
const listeners = new Set<Listener>();

/** Told of every change that is made here, by an edit or by going back and forth; not of other tabs’. */
export function whenEdited(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function tellEdited(before: SheetContent | null, how: Change): void {
  const { content } = useSession.getState();
  if (before && content && before !== content)
    for (const listener of listeners) listener(before, content, how);
}

let groupKey: string | undefined;
let groupUntil = 0;

/**
 * Change the open sheet. The recipe returns the changed fields; what it throws reaches the caller
 * and nothing is applied.
 *
 * @param group edits of the same group within a second of each other undo together
 * @param view a change of how it is looked at that belongs to the edit; undo leaves it alone
 * @throws ReedError `range` when the sheet would go over one of its limits
 */
export function edit(
  recipe: (content: SheetContent) => Partial<SheetContent>,
  group?: string,
  view?: Partial<Sheet['view']>,
): void {
  const { content, frame } = useSession.getState();
  if (!content || !frame) return;
  const next = { ...content, ...recipe(content) };
  const nextFrame: SheetFrame = view ? { ...frame, view: { ...frame.view, ...view } } : frame;
  gate({ ...nextFrame, ...next });
  const time = Date.now();
  const sameStep = group !== undefined && group === groupKey && time < groupUntil;
  [groupKey, groupUntil] = [group, time + GROUP_TIME];
  const change = { content: next, frame: nextFrame };
  if (sameStep) setQuietly(change);
  else useSession.setState(change);
  tellEdited(content, 'edited');
  scheduleSave();
}

/**
 * Better the last edit once more is known of it: what it led to is replaced, and undo goes back to
 * what was before it.
 *
 * @throws ReedError as `edit`
 */
export function amend(recipe: (content: SheetContent) => Partial<SheetContent>): void {
  const { content, frame } = useSession.getState();
  if (!content || !frame) return;
  const next = { ...content, ...recipe(content) };
  gate({ ...frame, ...next });
  setQuietly({ content: next });
  scheduleSave();
}

/**
 * Change how the sheet is looked at; not a step of history.
 *
 * @throws ReedError `range` when the picture would lie outside what can be heard or measured
 */
export function editView(change: Partial<Sheet['view']>): void {
  const { content, frame } = useSession.getState();
  if (!content || !frame) return;
  const next = { ...frame, view: { ...frame.view, ...change } };
  gate({ ...next, ...content });
  setQuietly({ frame: next });
  scheduleSave();
}

export function undo(): void {
  groupKey = undefined;
  if (sessionHistory().pastStates.length === 0) return;
  const before = useSession.getState().content;
  takeDoing();
  sessionHistory().undo();
  tellEdited(before, 'gone to');
  scheduleSave();
}

export function redo(): void {
  groupKey = undefined;
  if (sessionHistory().futureStates.length === 0) return;
  const before = useSession.getState().content;
  sessionHistory().redo();
  tellEdited(before, 'gone to');
  scheduleSave();
}
