import { useMemo } from 'react';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Foreseen } from '@/core/bench/foreseen';
import { stepsOfWay, withForeseen } from '@/core/bench/steps/reading-steps';
import type { BenchStep } from '@/core/bench/steps/step';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { useJob, type JobState } from './use-job';

/**
 * How a board is built and tried, worked out whenever what bears on it changes.
 *
 * @param own what stands before the names of this path’s steps
 * @param foreseen of the sheet as it stands; until it is counted, what should be read of it is left out
 */
export function useSteps(
  sheet: Sheet,
  own: string,
  board: SheetBoard | undefined,
  foreseen: Foreseen | null,
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
  const { result, problem } = useJob('buildSteps', input);
  const steps = useMemo(
    () => {
      const all = result && foreseen ? withForeseen(result, sheet, foreseen, mark) : result;
      return all && stepsOfWay(all, sheet, own);
    },
    // What is foreseen is of the sheet as it stands.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [result, foreseen, mark, own],
  );
  return { result: steps, problem };
}
