import { useEffect, useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { PartsList } from '@/core/sheet/parts-list';
import type { Sheet } from '@/core/sheet/schema';
import { followOpenLibrary, useOpenLibrary, useSolvedSheet } from '@/store/open-library';
import { engine } from '@/workers/engine';

/** The parts list of a sheet as it is now; nothing while it is worked out. */
export function usePartsList(open: Sheet): { list: PartsList | null; problem: string | null } {
  const sheet = useSolvedSheet(open);
  const loading = useOpenLibrary((s) => s.loading);
  useEffect(followOpenLibrary, []);
  const [found, setFound] = useState<{
    of: Sheet | null;
    list: PartsList | null;
    problem: string | null;
  }>({ of: null, list: null, problem: null });
  useEffect(() => {
    // What its ways end in may be about to come.
    if (useOpenLibrary.getState().loading) return;
    const stop = new AbortController();
    engine()
      .run('partsList', { sheet }, { signal: stop.signal })
      .then((list) => setFound({ of: sheet, list, problem: null }))
      .catch((error: unknown) => {
        if (stop.signal.aborted) return;
        if (!(error instanceof ReedError)) throw error;
        setFound({ of: sheet, list: null, problem: messageOf(error) });
      });
    return () => stop.abort();
  }, [sheet, loading]);
  return found.of === sheet ? found : { list: null, problem: null };
}
