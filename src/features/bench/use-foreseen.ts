import { useMemo } from 'react';
import type { Foreseen } from '@/core/bench/foreseen';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { useJob, type JobState } from './use-job';

/** What boards of a sheet should measure like, counted anew whenever what bears on it changes. */
export function useForeseen(sheet: Sheet): JobState<Foreseen> {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const { ways, parts, source, controls, readings, view } = sheet;
  const input = useMemo(
    () => ({ sheet, drawer }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, readings, view, drawer],
  );
  return useJob('foresee', input);
}
