import { liveQuery, type Subscription } from 'dexie';
import { create } from 'zustand';
import { temporal } from 'zundo';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { addSheet, loadSheet, saveSheet, shelfReady } from './sheets';
import { database } from './database';

/** What undo goes back over. */
export type SheetContent = Pick<
  Sheet,
  'title' | 'ask' | 'parts' | 'ways' | 'readings' | 'keeps' | 'bank'
>;
/** What it leaves alone. */
type SheetFrame = Omit<Sheet, keyof SheetContent>;

export type SessionStatus =
  | { is: 'loading' }
  | { is: 'open' }
  | { is: 'missing' }
  | { is: 'damaged'; problem: string; document: unknown }
  | { is: 'conflict'; theirs: Sheet }
  | { is: 'failed'; problem: string };

interface SessionState {
  content: SheetContent | null;
  frame: SheetFrame | null;
  status: SessionStatus;
  /** True from an edit until it is stored. */
  unsaved: boolean;
}

/** An edit is stored this long after it was made, milliseconds; further edits do not put it off. */
const SAVE_DELAY = 80;

let groupKey: string | undefined;
let groupUntil = 0;
let remember = true;

/** The open sheet with its history. */
export const useSession = create<SessionState>()(
  temporal(
    (): SessionState => ({ content: null, frame: null, status: { is: 'loading' }, unsaved: false }),
    {
      partialize: ({ content }) => ({ content }),
      equality: (a, b) => a.content === b.content,
      limit: 300,
      // Edits of one group (a slider being dragged) are one step of history.
      handleSet: (handle) => (past) => {
        if (remember && (past as SessionState).content !== null) handle(past);
      },
    },
  ),
);

const history = () => useSession.temporal.getState();

/** The open sheet as one document. */
export function sheetOf(state: Pick<SessionState, 'content' | 'frame'>): Sheet | null {
  return state.content && state.frame ? { ...state.frame, ...state.content } : null;
}

/** Assembled once per change, so that equal documents are the same object. */
let assembled: { content: SheetContent; frame: SheetFrame; sheet: Sheet } | undefined;
export function useSheet(): Sheet | null {
  return useSession(({ content, frame }) => {
    if (!content || !frame) return null;
    if (assembled?.content !== content || assembled.frame !== frame)
      assembled = { content, frame, sheet: { ...frame, ...content } };
    return assembled.sheet;
  });
}

/**
 * Change the open sheet. The recipe returns the changed fields; what it throws reaches the caller
 * and nothing is applied.
 *
 * @param group edits of the same group within a second of each other undo together
 */
export function edit(
  recipe: (content: SheetContent) => Partial<SheetContent>,
  group?: string,
): void {
  const { content } = useSession.getState();
  if (!content) return;
  const change = recipe(content);
  const time = Date.now();
  remember = !(group !== undefined && group === groupKey && time < groupUntil);
  [groupKey, groupUntil] = [group, time + 1000];
  useSession.setState({ content: { ...content, ...change } });
  remember = true;
  scheduleSave();
}

/** Change how the sheet is looked at; not a step of history. */
export function editView(change: Partial<Sheet['view']>): void {
  const { frame } = useSession.getState();
  if (!frame) return;
  useSession.setState({ frame: { ...frame, view: { ...frame.view, ...change } } });
  scheduleSave();
}

export function undo(): void {
  groupKey = undefined;
  if (history().pastStates.length === 0) return;
  history().undo();
  scheduleSave();
}

export function redo(): void {
  groupKey = undefined;
  if (history().futureStates.length === 0) return;
  history().redo();
  scheduleSave();
}

let timer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> | undefined;
let watching: Subscription | undefined;

function scheduleSave(): void {
  useSession.setState({ unsaved: true });
  timer ??= setTimeout(() => void flush(), SAVE_DELAY);
}

/** Store what has not been stored yet. */
export async function flush(): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  await saving;
  const before = useSession.getState();
  const sheet = sheetOf(before);
  if (!sheet || !before.unsaved || before.status.is === 'conflict') return;
  saving = saveSheet(sheet)
    .then((result) => {
      if ('conflict' in result) {
        useSession.setState({ status: { is: 'conflict', theirs: result.conflict } });
        return;
      }
      const after = useSession.getState();
      if (after.frame?.id !== sheet.id) return;
      const { revision, updatedAt } = result.saved;
      const stillUnsaved = after.content !== before.content || after.frame !== before.frame;
      useSession.setState({
        frame: { ...after.frame, revision, updatedAt },
        unsaved: stillUnsaved,
        status: { is: 'open' },
      });
      if (stillUnsaved) timer ??= setTimeout(() => void flush(), SAVE_DELAY);
    })
    .catch((error: unknown) => {
      useSession.setState({
        status: {
          is: 'failed',
          problem: `This edit could not be stored: ${messageOf(error)}. Export the sheet to keep it.`,
        },
      });
    });
  await saving;
  saving = undefined;
}

/** Open a sheet and follow what other tabs do to it. */
export async function openSheet(id: string): Promise<void> {
  await flush();
  watching?.unsubscribe();
  useSession.setState({ content: null, frame: null, status: { is: 'loading' }, unsaved: false });
  // A store that cannot be opened is told of by the shell; here the sheet is then simply not found.
  await shelfReady().catch(() => undefined);
  const item = await loadSheet(id).catch(() => undefined);
  if (!item) {
    useSession.setState({ status: { is: 'missing' } });
    return;
  }
  if ('problem' in item) {
    useSession.setState({
      status: { is: 'damaged', problem: item.problem, document: item.document },
    });
    return;
  }
  adopt(item.sheet);
  watching = liveQuery(() => database().sheets.get(id)).subscribe((record) => {
    const { frame, unsaved, status } = useSession.getState();
    if (
      !record ||
      !frame ||
      frame.id !== id ||
      saving ||
      record.revision <= frame.revision ||
      status.is === 'conflict'
    )
      return;
    void loadSheet(id).then((latest) => {
      const current = useSession.getState();
      if (
        !latest ||
        !('sheet' in latest) ||
        current.frame?.id !== id ||
        latest.sheet.revision <= current.frame.revision
      )
        return;
      if (unsaved || current.unsaved)
        useSession.setState({ status: { is: 'conflict', theirs: latest.sheet } });
      else adopt(latest.sheet);
    });
  });
}

/** Take a stored sheet as the present state, with a history of its own. */
function adopt(sheet: Sheet): void {
  const { title, ask, parts, ways, readings, keeps, bank, ...frame } = sheet;
  remember = false;
  useSession.setState({
    content: { title, ask, parts, ways, readings, keeps, ...(bank ? { bank } : {}) },
    frame,
    status: { is: 'open' },
    unsaved: false,
  });
  remember = true;
  history().clear();
}

/** Settle a conflict: go on with the other tab's version; mine is kept as a copy when asked. */
export async function settleConflict(keepMine: boolean): Promise<Sheet | undefined> {
  const state = useSession.getState();
  if (state.status.is !== 'conflict') return undefined;
  const mine = sheetOf(state);
  const copy =
    keepMine && mine ? await addSheet(mine, `${mine.title} (this tab’s copy)`) : undefined;
  adopt(state.status.theirs);
  return copy;
}
