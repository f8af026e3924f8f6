import { create } from 'zustand';
import type { TuneProgress, TuneResult, TuneWish } from '@/core/crossover/tune';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { engine } from '@/workers/engine';

interface Tuning {
  running: boolean;
  progress: TuneProgress | null;
  result: TuneResult | null;
  problem: string | null;
}

const NOTHING: Tuning = { running: false, progress: null, result: null, problem: null };

/** The tuning that is under way, or what the last one found. */
export const useTuning = create<Tuning>()(() => NOTHING);

let stop: AbortController | null = null;

export async function startTuning(sheet: Sheet, wish: TuneWish): Promise<void> {
  stop?.abort();
  const own = new AbortController();
  stop = own;
  useTuning.setState({ ...NOTHING, running: true });
  try {
    const result = await engine().run(
      'tuneCrossover',
      { sheet, wish },
      {
        signal: own.signal,
        progress: (progress) => {
          if (!own.signal.aborted) useTuning.setState({ progress });
        },
      },
    );
    if (!own.signal.aborted) useTuning.setState({ running: false, result });
  } catch (error) {
    if (!own.signal.aborted) useTuning.setState({ running: false, problem: messageOf(error) });
  }
}

export function stopTuning(): void {
  stop?.abort();
  stop = null;
  useTuning.setState({ running: false, progress: null });
}

/** Whatever was found belongs to a form that is gone. */
export function clearTuning(): void {
  stopTuning();
  useTuning.setState(NOTHING);
}
