import { readBoards as read, type BoardRead, type MeasuredBoard } from '@/core/bench/take-readings';
import type { StockEntry } from '@/core/library/stock';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** What the readings of a sheet are on the latest takes of its boards. */
export const readBoards: Job<
  { sheet: Sheet; boards: readonly MeasuredBoard[]; drawer: readonly StockEntry[] },
  never,
  BoardRead[]
> = async ({ sheet, boards, drawer }, { pause }) => {
  const found: BoardRead[] = [];
  for (const one of boards) {
    found.push(...read(sheet, [one], drawer));
    await pause();
  }
  return found;
};
