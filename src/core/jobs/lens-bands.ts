import { LensBands, type BandedLens, type CurveBand } from '@/core/lenses/bands';
import type { BoardsOfSheetOptions } from '@/core/sheet/spread-sheet';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

export interface LensBandsInput extends Omit<BoardsOfSheetOptions, 'way' | 'tied'> {
  sheet: Sheet;
  lens: BandedLens;
  boards: number;
  seed: number;
}

/** What is handed over first, and then after every time as many boards. */
const FIRST = 24;
const GROWTH = 4;
/** Boards between two pauses. */
const SLICE = 4;

/** Bands of a lens: first ones after a few boards, then better ones. */
export const lensBands: Job<
  LensBandsInput,
  Record<string, CurveBand>,
  Record<string, CurveBand>
> = async ({ sheet, lens, ...options }, { pause, progress }) => {
  const bands = new LensBands(sheet, lens, options);
  let next = Math.min(FIRST, options.boards);
  while (bands.drawn < options.boards) {
    bands.draw(Math.min(SLICE, next - bands.drawn));
    if (bands.drawn >= next && next < options.boards) {
      progress(bands.result());
      next = Math.min(options.boards, next * GROWTH);
    }
    await pause();
  }
  return bands.result();
};
