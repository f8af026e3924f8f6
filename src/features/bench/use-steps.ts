import { useMemo } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Foreseen } from '@/core/bench/foreseen';
import type { BenchStep } from '@/core/bench/steps/step';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { useJob, type JobState } from './use-job';

/**
 * How a board is built and tried, worked out whenever what bears on it changes.
 *
 * @param foreseen of the sheet as it stands; nothing until it is counted
 */
export function useSteps(
  sheet: Sheet,
  board: SheetBoard | undefined,
  foreseen: Foreseen | null,
): JobState<readonly BenchStep[]> {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const mark = usePreferences((p) => p.mark);
  const values = board?.values;
  const input = useMemo(
    () => (foreseen ? { sheet, board, drawer, mark, foreseen } : null),
    // What is foreseen is of the sheet as it stands.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [values, drawer, mark, foreseen],
  );
  return useJob('buildSteps', input);
}
