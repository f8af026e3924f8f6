import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { messageOf, ReedError } from '@/core/errors';
import type { Evaluation, LayerTrace } from '@/core/sheet/evaluate';
import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Sheet } from '@/core/sheet/schema';
import { sheetOf, useSession } from '@/store/sheet-session';
import { engine } from '@/workers/engine';

export interface EvaluationState {
  evaluation: Evaluation | null;
  problem: string | null;
  /** True when the figures shown have been behind the values beside them for too long. */
  stale: boolean;
}

const NOTHING: EvaluationState = { evaluation: null, problem: null, stale: false };
const useEvaluations = create<EvaluationState>()(() => NOTHING);

/** Figures may be this far behind the values before they are greyed, milliseconds. */
const LATE = 300;

let running = false;
let late: ReturnType<typeof setTimeout> | undefined;

type Asked = Pick<ReturnType<typeof useSession.getState>, 'content' | 'frame'>;
const isPresent = ({ content, frame }: Asked) => {
  const now = useSession.getState();
  return now.content === content && now.frame?.view === frame?.view;
};

/**
 * Ask the engine about the open sheet until its latest state has been answered. One question is
 * under way at a time; each answer is shown as it comes, so that the picture follows a drag however
 * long an answer takes, and the last one shown is always that of the newest state.
 */
async function answerLatest(): Promise<void> {
  late ??= setTimeout(() => useEvaluations.setState({ stale: true }), LATE);
  if (running) return;
  running = true;
  try {
    for (;;) {
      const { content, frame } = useSession.getState();
      const sheet = sheetOf({ content, frame });
      if (!sheet) {
        clearTimeout(late);
        late = undefined;
        return;
      }
      const answer = await ask(sheet);
      const done = isPresent({ content, frame });
      // An answer about another sheet than the one now open is of no use.
      if (useSession.getState().frame?.id === sheet.id)
        useEvaluations.setState({ ...answer, stale: false });
      clearTimeout(late);
      late = undefined;
      if (done) return;
      late = setTimeout(() => useEvaluations.setState({ stale: true }), LATE);
    }
  } finally {
    running = false;
  }
}

async function ask(sheet: Sheet): Promise<Omit<EvaluationState, 'stale'>> {
  try {
    const evaluation = await engine().evaluate(sheet);
    return { evaluation, problem: evaluation.problems[0] ?? null };
  } catch (error) {
    return { evaluation: null, problem: messageOf(error) };
  }
}

/**
 * The evaluation of the open sheet. The question leaves in the same moment as the edit, before
 * anything is rendered for it: the engine works while the page draws the new value.
 */
export function useEvaluation(): EvaluationState {
  useEffect(() => {
    useEvaluations.setState(NOTHING);
    void answerLatest();
    return useSession.subscribe((after, before) => {
      if (after.content !== before.content || after.frame?.view !== before.frame?.view)
        void answerLatest();
    });
  }, []);
  return useEvaluations();
}

/** Curves of the built path with the pointed part 10 % lower and higher. */
export function usePointedVariation(sheet: Sheet | null, composed: string | null): LayerTrace[] {
  const [found, setFound] = useState<{ sheet: Sheet; part: string; traces: LayerTrace[] } | null>(
    null,
  );
  useEffect(() => {
    if (!sheet || !composed) return;
    const stop = new AbortController();
    const { stageId, part } = splitComposedId(composed);
    const stage = sheet.ways[0].stages.find((s) => s.id === stageId);
    if (!stage || !(part in stage.values)) return;
    engine()
      .partVariation(sheet, stageId, part, [0.9, 1.1], { signal: stop.signal })
      .then((traces) => {
        if (!stop.signal.aborted) setFound({ sheet, part: composed, traces });
      })
      .catch((error: unknown) => {
        // A part that cannot be moved simply shows nothing; being overtaken is no failure.
        if (!(error instanceof ReedError)) throw error;
      });
    return () => stop.abort();
  }, [sheet, composed]);
  return found && found.sheet === sheet && found.part === composed ? found.traces : NONE;
}

const NONE: LayerTrace[] = [];
