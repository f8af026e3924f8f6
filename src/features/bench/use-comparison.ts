import { useEffect, useMemo, useState } from 'react';
import type { Comparison } from '@/core/bench/compare';
import type { SheetBoard } from '@/core/bench/board-circuit';
import { messageOf } from '@/core/errors';
import type { Take } from '@/core/library/take';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { engine } from '@/workers/engine';

export interface ComparisonState {
  /** Of just this take, board and sheet; nothing while it is worked out. */
  comparison: Comparison | null;
  problem: string | null;
}

const NOTHING: ComparisonState = { comparison: null, problem: null };

/** A take held against its board, worked out beside the page whenever either changes. */
export function useComparison(
  sheet: Sheet,
  board: SheetBoard | undefined,
  take: Take | undefined,
): ComparisonState {
  const drawer = useOpenLibrary((s) => s.library.drawer);
  const { ways, parts, source, controls } = sheet;
  const values = board?.values;
  // Only what bears on it: a board’s note and the picture’s span do not. The question itself tells
  // whose the answer is, so that no figures stand beside other values than theirs.
  const asked = useMemo(
    () => (board && take ? { sheet, board, take, drawer } : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [ways, parts, source, controls, values, take, drawer],
  );
  const [state, setState] = useState<ComparisonState & { of: unknown }>({ ...NOTHING, of: null });
  useEffect(() => {
    if (!asked) return;
    const stop = new AbortController();
    engine()
      .run('compareTake', asked, { signal: stop.signal })
      .then((comparison) => setState({ comparison, problem: null, of: asked }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted)
          setState({ comparison: null, problem: messageOf(error), of: asked });
      });
    return () => stop.abort();
  }, [asked]);
  return asked && state.of === asked ? state : NOTHING;
}
