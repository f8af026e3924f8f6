import { useMemo } from 'react';
import { waysAtBench } from '@/core/bench/bench-sheet';
import type { Sheet } from '@/core/sheet/schema';
import { solvedSheet, useOpenLibrary } from '@/store/open-library';

/**
 * The open sheet as one of its paths stands on the bench. Its paths are the same objects as long as
 * nothing in them changed: what is worked out of them is not worked out anew for a note.
 */
export function useBenchSheet(open: Sheet, way: string | undefined): Sheet {
  const { library } = useOpenLibrary();
  const ways = useMemo(
    () => waysAtBench(solvedSheet(open, library), way),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [open.ways, library.drivers, way],
  );
  return useMemo(() => (ways === open.ways ? open : { ...open, ways }), [open, ways]);
}
