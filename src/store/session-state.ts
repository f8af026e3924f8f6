import { create } from 'zustand';
import { temporal } from 'zundo';
import { designOf } from '@/core/sheet/design-of';
import type { Sheet, SheetDesign } from '@/core/sheet/schema';

/** What undo goes back over. */
export type SheetContent = SheetDesign & Pick<Sheet, 'title' | 'keeps'>;
/** What it leaves alone. */
export type SheetFrame = Omit<Sheet, keyof SheetContent>;

export type SessionStatus =
  | { is: 'loading' }
  | { is: 'open' }
  | { is: 'missing' }
  | { is: 'damaged'; problem: string; document: unknown }
  /** Deleted in another tab while it is open here. */
  | { is: 'gone' }
  /** The last edits could not be stored; it is being tried again. */
  | { is: 'failed'; problem: string };

/** Something that happened to the open sheet and should be known. */
export interface Notice {
  text: string;
  /** Another sheet that it speaks of. */
  other?: { id: string; title: string };
}

export interface SessionState {
  content: SheetContent | null;
  frame: SheetFrame | null;
  status: SessionStatus;
  /** True from an edit until it is stored. */
  unsaved: boolean;
  notice: Notice | null;
}

export const NOTHING_OPEN: SessionState = {
  content: null,
  frame: null,
  status: { is: 'loading' },
  unsaved: false,
  notice: null,
};

/** What edits that are not stored yet were done by, where that is more than an edit: for the book. */
let doing: string | undefined;

/** Edits made by `act` are told of as done by something: “Fit”, “Suspect”. */
export function doneBy<T>(what: string, act: () => T): T {
  const { content } = useSession.getState();
  const result = act();
  if (useSession.getState().content !== content) doing = what;
  return result;
}

/** What has been done since it was asked last. */
export function takeDoing(): string | undefined {
  const taken = doing;
  doing = undefined;
  return taken;
}

let remembering = true;

/** The open sheet with its history. */
export const useSession = create<SessionState>()(
  temporal((): SessionState => NOTHING_OPEN, {
    partialize: ({ content }) => ({ content }),
    equality: (a, b) => a.content === b.content,
    limit: 300,
    // Edits of one group (a slider being dragged) are one step of history.
    handleSet: (handle) => (past) => {
      if (remembering && (past as SessionState).content !== null) handle(past);
    },
  }),
);

export const sessionHistory = () => useSession.temporal.getState();

/** Change the session without a step of history. */
export function setQuietly(change: Partial<SessionState>): void {
  remembering = false;
  useSession.setState(change);
  remembering = true;
}

/** The open sheet as one document. */
export function sheetOf(state: Pick<SessionState, 'content' | 'frame'>): Sheet | null {
  return state.content && state.frame ? { ...state.frame, ...state.content } : null;
}

/**
 * The open sheet as it is looked at. Assembled once per change, so that equal documents are the same
 * object; its having been stored is no change, and revision and date may lie behind.
 */
let assembled: { content: SheetContent; frame: SheetFrame; sheet: Sheet } | undefined;
export function useSheet(): Sheet | null {
  return useSession(({ content, frame }) => {
    if (!content || !frame) return null;
    if (
      assembled?.content !== content ||
      assembled.frame.view !== frame.view ||
      assembled.frame.id !== frame.id
    )
      assembled = { content, frame, sheet: { ...frame, ...content } };
    return assembled.sheet;
  });
}

/** Take a stored sheet as the present state, with a history of its own. */
export function adopt(sheet: Sheet, change: Partial<SessionState> = {}): void {
  setQuietly({ ...divided(sheet), status: { is: 'open' }, unsaved: false, ...change });
  sessionHistory().clear();
}

/** A sheet as content and frame. */
export function divided(sheet: Sheet): { content: SheetContent; frame: SheetFrame } {
  const { title, keeps } = sheet;
  const content: SheetContent = { ...designOf(sheet), title, keeps };
  const frame = Object.fromEntries(
    Object.entries(sheet).filter(([field]) => !(field in content)),
  ) as SheetFrame;
  return { content, frame };
}
