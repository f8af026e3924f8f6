import { useEffect, useRef, useState } from 'react';
import { messageOf } from '@/core/errors';
import type { LensPictures, LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import { useSolvedSheet } from '@/store/open-library';
import { engine } from '@/workers/engine';

type PictureOf<R extends LensRequest> = LensPictures[R['lens']];

export interface LensState<R extends LensRequest> {
  picture: PictureOf<R> | null;
  problem: string | null;
  /** True while the picture is that of an earlier state of the sheet. */
  stale: boolean;
}

/**
 * What a lens shows of the present sheet. While an answer is under way the last one stays, marked as
 * stale; states passed over meanwhile are never computed. A question that failed says so in its
 * place, and the next state is asked about as if nothing had been.
 */
export function useLens<R extends LensRequest>(open: Sheet, request: R): LensState<R> {
  const sheet = useSolvedSheet(open);
  const [found, setFound] = useState<
    Omit<LensState<R>, 'stale'> & { sheet: Sheet | null; key: string }
  >({ picture: null, problem: null, sheet: null, key: '' });
  const key = JSON.stringify(request);
  const latest = useRef({ sheet, key });
  const running = useRef<AbortController | null>(null);
  useEffect(() => {
    latest.current = { sheet, key };
    if (running.current) return;
    const stop = new AbortController();
    running.current = stop;
    const answer = async () => {
      try {
        for (;;) {
          const asked = latest.current;
          try {
            const input = { sheet: asked.sheet, request: JSON.parse(asked.key) as R };
            const picture = (await engine().run('lens', input, {
              signal: stop.signal,
            })) as PictureOf<R>;
            setFound({ picture, problem: null, ...asked });
          } catch (error) {
            if (stop.signal.aborted) return;
            setFound({ picture: null, problem: messageOf(error), ...asked });
          }
          if (latest.current === asked) return;
        }
      } finally {
        if (running.current === stop) running.current = null;
      }
    };
    void answer();
  }, [sheet, key]);
  // A lens that is no longer looked through need not be worked out.
  useEffect(
    () => () => {
      running.current?.abort();
      running.current = null;
    },
    [],
  );
  const { picture, problem } = found;
  return { picture, problem, stale: found.sheet !== sheet || found.key !== key };
}
