import { useEffect, useMemo, useState } from 'react';
import type { BenchStep } from '@/core/bench/steps/step';
import type { SheetBoard } from '@/core/bench/board-circuit';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { engine } from '@/workers/engine';

export interface StepsState {
  /** Of just this sheet and board; nothing while they are worked out. */
  steps: readonly BenchStep[] | null;
  problem: string | null;
}

/** How a board is built and tried, worked out beside the page whenever what bears on it changes. */
export function useSteps(sheet: Sheet, board: SheetBoard | undefined): StepsState {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const mark = usePreferences((p) => p.mark);
  const { ways, parts, source, controls, readings, view } = sheet;
  const values = board?.values;
  const asked = useMemo(
    () => ({ sheet, board, drawer, mark }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, readings, view, values, drawer, mark],
  );
  const [state, setState] = useState<StepsState & { of: unknown }>({
    steps: null,
    problem: null,
    of: null,
  });
  useEffect(() => {
    const stop = new AbortController();
    engine()
      .run('buildSteps', asked, { signal: stop.signal })
      .then((steps) => setState({ steps, problem: null, of: asked }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setState({ steps: null, problem: messageOf(error), of: asked });
      });
    return () => stop.abort();
  }, [asked]);
  return state.of === asked ? state : { steps: null, problem: null };
}
