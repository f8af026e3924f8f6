import { useMemo } from 'react';
import type { Comparison } from '@/core/bench/compare';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { Take } from '@/core/library/take';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { useJob, type JobState } from './use-job';

/** A take held against its board, worked out whenever either changes. */
export function useComparison(
  sheet: Sheet,
  board: SheetBoard | undefined,
  take: Take | undefined,
): JobState<Comparison> {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const { ways, parts, source, controls } = sheet;
  const values = board?.values;
  // Only what bears on it: a board’s note and the picture’s span do not.
  const input = useMemo(
    () => (board && take ? { sheet, board, take, drawer } : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, values, take, drawer],
  );
  return useJob('compareTake', input);
}
