import { create } from 'zustand';
import type { TuneProgress, TuneResult, TuneWish } from '@/core/crossover/tune';
import { messageOf, ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { stockOfDrawer } from '@/store/drawer';
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

/** What values a search ends in: of the sheet’s series, of what lies in the drawer, or any. */
export type Ends = 'series' | 'drawer' | 'exact';

export async function startTuning(
  sheet: Sheet,
  wish: Omit<TuneWish, 'snap' | 'pieces'>,
  ends: Ends,
): Promise<void> {
  stop?.abort();
  const own = new AbortController();
  stop = own;
  useTuning.setState({ ...NOTHING, running: true });
  try {
    const pieces = ends === 'drawer' ? await piecesOfDrawer() : undefined;
    const result = await engine().run(
      'tuneCrossover',
      { sheet, wish: { ...wish, snap: ends !== 'exact', ...(pieces ? { pieces } : {}) } },
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

/** @throws ReedError `design` for a drawer with nothing in it that a crossover is made of */
async function piecesOfDrawer(): Promise<NonNullable<TuneWish['pieces']>> {
  const { stock } = await stockOfDrawer();
  if (Object.keys(stock).length === 0)
    throw new ReedError(
      'design',
      'Nothing lies in the drawer that a crossover is made of: put parts in, or end in values of a series.',
    );
  return stock;
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
