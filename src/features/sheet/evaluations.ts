import { create } from 'zustand';
import { messageOf } from '@/core/errors';
import type { Library } from '@/core/library';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { sheetOf, useSession } from '@/store/sheet-session';
import { followOpenLibrary, solvedSheet, useOpenLibrary } from '@/store/open-library';
import { engine } from '@/workers/engine';

export interface EvaluationState {
  evaluation: Evaluation | null;
  problem: string | null;
  /** True when the figures shown have been behind the values beside them for too long. */
  stale: boolean;
}

const NOTHING: EvaluationState = { evaluation: null, problem: null, stale: false };

/** The evaluation of the open sheet. */
export const useEvaluations = create<EvaluationState>()(() => NOTHING);

/** Figures may be this far behind the values before they are greyed, milliseconds. */
const LATE = 300;

let following = false;

/**
 * From now on ask the engine about whatever sheet is open, whenever it changes. The question leaves
 * in the same moment as the edit, before anything is rendered for it: the engine works while the
 * page draws the new value.
 */
export function followOpenSheet(): void {
  if (following) return;
  following = true;
  followOpenLibrary();
  void answerLatest();
  useOpenLibrary.subscribe((after, before) => {
    if (after.library.drivers !== before.library.drivers || after.loading !== before.loading)
      void answerLatest();
  });
  useSession.subscribe((after, before) => {
    if (after.frame?.id !== before.frame?.id && !isCopied(after, before))
      useEvaluations.setState(NOTHING);
    if (after.content !== before.content || after.frame?.view !== before.frame?.view)
      void answerLatest();
  });
}

type Asked = Pick<ReturnType<typeof useSession.getState>, 'content' | 'frame'>;

/** What is open goes on under another id: its figures are still its own. */
const isCopied = (after: Asked, before: Asked) => after.content === before.content;

const isPresent = ({ content, frame }: Asked, drivers: Library['drivers']) => {
  const now = useSession.getState();
  return (
    now.content === content &&
    now.frame?.view === frame?.view &&
    useOpenLibrary.getState().library.drivers === drivers
  );
};

let running = false;
let late: ReturnType<typeof setTimeout> | undefined;

/**
 * Ask until the latest state has been answered. One question is under way at a time; each answer is
 * shown as it comes, so that the picture follows a drag however long an answer takes, and the last
 * one shown is always that of the newest state.
 */
async function answerLatest(): Promise<void> {
  if (running) return startClock();
  running = true;
  try {
    for (;;) {
      const { content, frame } = useSession.getState();
      const sheet = sheetOf({ content, frame });
      // Banks and crossovers have many paths and ask for themselves.
      if (!sheet || sheet.bank || sheet.crossover) return;
      const { library, loading } = useOpenLibrary.getState();
      // What it ends in is about to come, and is no reason to say that it is not there.
      if (loading) return;
      startClock();
      const answer = await ask(solvedSheet(sheet, library));
      // An answer about another sheet than the one now open is of no use.
      if (useSession.getState().content === null) return;
      const done = isPresent({ content, frame }, library.drivers);
      if (done || useSession.getState().frame?.id === sheet.id)
        useEvaluations.setState({ ...answer, stale: false });
      stopClock();
      if (done) return;
    }
  } finally {
    stopClock();
    running = false;
  }
}

function startClock(): void {
  late ??= setTimeout(() => useEvaluations.setState({ stale: true }), LATE);
}

function stopClock(): void {
  clearTimeout(late);
  late = undefined;
}

async function ask(sheet: Sheet): Promise<Omit<EvaluationState, 'stale'>> {
  try {
    const evaluation = await engine().evaluate(sheet);
    return { evaluation, problem: evaluation.problems[0] ?? null };
  } catch (error) {
    return { evaluation: null, problem: messageOf(error) };
  }
}
