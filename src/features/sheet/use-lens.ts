import { useEffect, useRef, useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { LensPictures, LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';

type PictureOf<R extends LensRequest> = LensPictures[R['lens']];

/**
 * What a lens shows of the present sheet. While an answer is under way the last one stays; states
 * passed over meanwhile are never computed.
 */
export function useLens<R extends LensRequest>(
  sheet: Sheet,
  request: R,
): { picture: PictureOf<R> | null; problem: string | null } {
  const [found, setFound] = useState<{ picture: PictureOf<R> | null; problem: string | null }>({
    picture: null,
    problem: null,
  });
  const key = JSON.stringify(request);
  const latest = useRef({ sheet, key });
  const running = useRef(false);
  useEffect(() => {
    latest.current = { sheet, key };
    if (running.current) return;
    running.current = true;
    const answer = async () => {
      for (;;) {
        const asked = latest.current;
        try {
          const picture = await engine().lens(asked.sheet, JSON.parse(asked.key) as R);
          setFound({ picture, problem: null });
        } catch (error) {
          if (!(error instanceof ReedError)) throw error;
          setFound((f) => ({ ...f, problem: messageOf(error) }));
        }
        if (latest.current === asked) break;
      }
      running.current = false;
    };
    void answer();
  }, [sheet, key]);
  return found;
}
