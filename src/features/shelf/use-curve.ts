import { useEffect, useState } from 'react';
import type { Card, CardCurve } from '@/store/card';
import { keepCurve } from '@/store/shelf';

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
        const { workOutCurve } = await import('./work-out-curve');
        const fresh = await workOutCurve({ id, curveKey }, stop.signal);
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
