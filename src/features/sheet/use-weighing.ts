import { useCallback, useEffect, useRef, useState } from 'react';
import type { Ask } from '@/core/design/ask';
import { messageOf, ReedError } from '@/core/errors';
import { candidatesOf, type Candidate } from '@/core/weigh/candidates';
import type { Prices } from '@/core/weigh/prices';
import type { WeighRefusal, WeighRow } from '@/core/weigh/weigh';
import type { PartChoices } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';

export interface Weighing {
  candidates: readonly Candidate[];
  rows: readonly WeighRow[];
  refusals: readonly WeighRefusal[];
  running: boolean;
  problem: string | null;
  stop: () => void;
}

/** Between two pictures of the table, milliseconds: drawing one holds the page up for some 80 of them. */
const BETWEEN_PICTURES = 300;

/** So many are weighed and forgotten before they are asked for. */
const WARMED = 6;
/** Whether the worker has weighed anything yet. */
let warmed = false;

/** Weigh the candidates of an ask in the worker; the table fills as rows arrive. */
export function useWeighing(
  ask: Ask,
  opAmp: PartChoices['opAmp']['model'],
  prices: Prices,
): Weighing {
  const [state, setState] = useState<Omit<Weighing, 'stop'>>({
    candidates: [],
    rows: [],
    refusals: [],
    running: true,
    problem: null,
  });
  const stopper = useRef<AbortController | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    stopper.current = stop;
    warmed = true;
    const rows: WeighRow[] = [];
    const refusals: WeighRefusal[] = [];
    let shown = -Infinity;
    const show = (change: Partial<Weighing> = {}) =>
      setState((s) => ({ ...s, rows: [...rows], refusals: [...refusals], ...change }));
    const weigh = async () => {
      try {
        const candidates = candidatesOf(ask);
        show({ candidates, running: true, problem: null });
        const progress = (row: WeighRow | WeighRefusal) => {
          if ('refusal' in row) refusals.push(row);
          else rows.push(row);
          // The first row at once, then a picture in every third of a second at most.
          const now = performance.now();
          if (now - shown < BETWEEN_PICTURES || stop.signal.aborted) return;
          shown = now;
          show();
        };
        const input = { candidates, options: { opAmp, prices } };
        await engine().run('weigh', input, { signal: stop.signal, progress });
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
 * Weigh a few candidates and forget them: the worker has its code ready by the time the table is
 * opened, and the first rows come at once. Once a page is enough.
 */
export function warmWeighing(ask: Ask): void {
  if (warmed) return;
  warmed = true;
  try {
    engine()
      .run('weigh', { candidates: candidatesOf(ask, { most: WARMED }), options: {} })
      .catch(() => undefined);
  } catch {
    // An ask without candidates says so in the table itself.
  }
}
