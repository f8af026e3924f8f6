import type { StockEntry } from '@/core/library/stock';
import { spreadOfSheet } from '@/core/sheet/spread-sheet';
import type { Sheet } from '@/core/sheet/schema';
import type { SpreadResult } from '@/core/spread/spread';
import type { Job } from './job';

/** What is handed over first, and then after every time as many boards. */
const FIRST = 48;
const GROWTH = 4;
/** Boards between two pauses. */
const SLICE = 40;

/**
 * Many boards of a sheet: a first band after a few dozen, then better ones; at the end what each part
 * has to do with it.
 */
export const spread: Job<
  { sheet: Sheet; way?: number; boards: number; seed: number; drawer?: readonly StockEntry[] },
  SpreadResult,
  SpreadResult
> = async ({ sheet, ...options }, { pause, progress }) => {
  const run = spreadOfSheet(sheet, options);
  let next = Math.min(FIRST, options.boards);
  while (run.drawn < options.boards) {
    run.draw(Math.min(SLICE, next - run.drawn));
    if (run.drawn >= next) {
      progress(run.result(false));
      next = Math.min(options.boards, next * GROWTH);
    }
    await pause();
  }
  return run.result();
};
