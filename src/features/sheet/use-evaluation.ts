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
}

const NOTHING: EvaluationState = { evaluation: null, problem: null };
const useEvaluations = create<EvaluationState>()(() => NOTHING);

let running = false;

/**
 * Ask the engine about the open sheet until the latest state of it has been answered. One question
 * is under way at a time; edits made meanwhile are answered together by the next, so that the
 * picture is never drawn twice for one state.
 */
async function answerLatest(): Promise<void> {
  if (running) return;
  running = true;
  try {
    for (;;) {
      const { content, frame } = useSession.getState();
      const sheet = sheetOf({ content, frame });
      if (!sheet) return;
      const evaluation = await engine().evaluate(sheet);
      const now = useSession.getState();
      if (now.content === content && now.frame?.view === frame?.view) {
        useEvaluations.setState({ evaluation, problem: evaluation.problems[0] ?? null });
        return;
      }
    }
  } catch (error) {
    useEvaluations.setState({ problem: messageOf(error) });
  } finally {
    running = false;
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
