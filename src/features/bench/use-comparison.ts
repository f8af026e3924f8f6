import { useMemo } from 'react';
import type { Comparison } from '@/core/bench/compare';
import type { SheetBoard } from '@/core/bench/board-circuit';
import { isSamePoint } from '@/core/bench/points';
import type { Take } from '@/core/library/take';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { useJob, type JobState } from './use-job';

/** Takes of a board that are weighed with the one that is looked at: of another point, as they were chosen. */
export function useBeside(
  board: SheetBoard | undefined,
  takes: readonly Take[],
  looked: Take | undefined,
): readonly Take[] {
  const together = board?.together;
  return useMemo(
    () =>
      takes.filter(
        (t) => together?.includes(t.id) && looked && t !== looked && !isSamePoint(t.of, looked.of),
      ),
    [together, takes, looked],
  );
}

/** A take held against its board, worked out whenever either changes. */
export function useComparison(
  sheet: Sheet,
  board: SheetBoard | undefined,
  take: Take | undefined,
  beside: readonly Take[],
): JobState<Comparison> {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const { ways, parts, source, controls } = sheet;
  const values = board?.values;
  // What is weighed with it, by name: the list itself is made anew with every note.
  const key = beside.map((t) => t.id).join();
  // Only what bears on it: a board’s note and the picture’s span do not.
  const input = useMemo(
    () => (board && take ? { sheet, board, take, beside, drawer } : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, values, take, key, drawer],
  );
  return useJob('compareTake', input);
}
