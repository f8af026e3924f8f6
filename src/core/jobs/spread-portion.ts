import { spreadOfSheet, type SheetSpreadOptions } from '@/core/sheet/spread-sheet';
import type { Sheet } from '@/core/sheet/schema';
import type { SpreadPortion } from '@/core/spread/spread';
import type { Job } from './job';

/** Boards between two pauses. */
const SLICE = 250;

/** Some of a great many boards of a sheet, counted; how many so far is handed over. */
export const spreadPortion: Job<
  { sheet: Sheet } & SheetSpreadOptions,
  number,
  SpreadPortion
> = async ({ sheet, ...options }, { pause, progress }) => {
  const run = spreadOfSheet(sheet, options);
  while (run.drawn < options.boards) {
    run.draw(SLICE);
    progress(run.drawn);
    await pause();
  }
  return run.portion();
};
