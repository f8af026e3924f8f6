import { useMemo } from 'react';
import type { BenchStep } from '@/core/bench/steps/step';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { useJob, type JobState } from './use-job';

/** How a board is built and tried, worked out whenever what bears on it changes. */
export function useSteps(
  sheet: Sheet,
  board: SheetBoard | undefined,
): JobState<readonly BenchStep[]> {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const mark = usePreferences((p) => p.mark);
  const { ways, parts, source, controls, readings, view } = sheet;
  const values = board?.values;
  const input = useMemo(
    () => ({ sheet, board, drawer, mark }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, readings, view, values, drawer, mark],
  );
  return useJob('buildSteps', input);
}
