import { useCallback, useEffect, useRef, useState } from 'react';
import type { Ask } from '@/core/design/ask';
import { messageOf, ReedError } from '@/core/errors';
import { candidatesOf } from '@/core/weigh/candidates';
import type { Prices } from '@/core/weigh/prices';
import type { WeighRefusal, WeighRow } from '@/core/weigh/weigh';
import type { PartChoices } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';

export interface Weighing {
  rows: readonly WeighRow[];
  refusals: readonly WeighRefusal[];
  total: number;
  running: boolean;
  problem: string | null;
  stop: () => void;
}

/** Weigh the candidates of an ask in the worker; the table fills as rows arrive. */
export function useWeighing(
  ask: Ask,
  opAmp: PartChoices['opAmp']['model'],
  prices: Prices,
): Weighing {
  const [state, setState] = useState<Omit<Weighing, 'stop'>>({
    rows: [],
    refusals: [],
    total: 0,
    running: true,
    problem: null,
  });
  const stopper = useRef<AbortController | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    stopper.current = stop;
    const rows: WeighRow[] = [];
    const refusals: WeighRefusal[] = [];
    let shown = 0;
    const show = (change: Partial<Weighing> = {}) =>
      setState((s) => ({ ...s, rows: [...rows], refusals: [...refusals], ...change }));
    const weigh = async () => {
      try {
        const candidates = candidatesOf(ask);
        show({ total: candidates.length, running: true, problem: null });
        await engine().weigh(
          candidates,
          { opAmp, prices },
          (row) => {
            if ('refusal' in row) refusals.push(row);
            else rows.push(row);
            // At most a picture in every tenth of a second, the first rows at once.
            const now = performance.now();
            if (rows.length < 6 || now - shown > 100) {
              shown = now;
              if (!stop.signal.aborted) show();
            }
          },
          { signal: stop.signal },
        );
        if (!stop.signal.aborted) show({ running: false });
      } catch (error) {
        // Overtaken by another question, whose rows are now in the table.
        if (stopper.current !== stop) return;
        const stopped = error instanceof ReedError && error.code === 'stopped';
        show({ running: false, problem: stopped ? null : messageOf(error) });
      }
    };
    void weigh();
    return () => stop.abort();
  }, [ask, opAmp, prices]);
  const stop = useCallback(() => stopper.current?.abort(), []);
  return { ...state, stop };
}

/**
 * Weigh one candidate and forget it: the worker has its code ready by the time the table is opened,
 * and the first rows come at once.
 */
export function warmWeighing(ask: Ask): void {
  try {
    const [first] = candidatesOf(ask, { most: 1 });
    if (first)
      engine()
        .weigh([first], { boards: 8 }, () => undefined)
        .catch(() => undefined);
  } catch {
    // An ask without candidates says so in the table itself.
  }
}
