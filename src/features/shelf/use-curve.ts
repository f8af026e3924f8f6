import { useEffect, useState } from 'react';
import { withDrivers } from '@/core/sheet/references';
import type { Card, CardCurve } from '@/store/card';
import { libraryFor } from '@/store/library';
import { keepCurve } from '@/store/shelf';
import { required } from '@/store/sheets';
import { engine } from '@/workers/engine';

/** One small curve at a time: the shelf is no reason for anything else to wait. */
let queue: Promise<unknown> = Promise.resolve();

/** The curve of a card: the one stored with it, or one that is worked out now and stored. */
export function useCurve(card: Card): CardCurve | null {
  const { id, curveKey, curve } = card;
  const fits = curve?.key === curveKey;
  const [found, setFound] = useState<CardCurve | null>(null);
  useEffect(() => {
    if (fits || curveKey === '') return;
    const stop = new AbortController();
    queue = queue
      .then(async () => {
        // Scrolled away, or overtaken, before its turn came.
        if (stop.signal.aborted) return;
        const stored = await required(id);
        const { library } = await libraryFor([stored]);
        const sheet = withDrivers(stored, library.drivers);
        const drawn = await engine().run('cardCurve', { sheet }, { signal: stop.signal });
        const fresh = { key: curveKey, ...drawn };
        setFound(fresh);
        await keepCurve(id, fresh);
      })
      // A circuit that cannot be solved has no curve; the sheet itself says why.
      .catch(() => undefined);
    return () => stop.abort();
  }, [id, curveKey, fits]);
  if (fits) return curve;
  return found?.key === curveKey ? found : null;
}
