import { compareTake as compare, type Comparison } from '@/core/bench/compare';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { StockEntry } from '@/core/library/stock';
import type { Take } from '@/core/library/take';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

export interface TakeOfBoard {
  sheet: Sheet;
  board: SheetBoard;
  take: MeasuredCurve & Pick<Take, 'meter'>;
  drawer: readonly StockEntry[];
}

/** A take held against its board, and which part explains the difference. */
export const compareTake: Job<TakeOfBoard, never, Comparison> = ({ sheet, board, take, drawer }) =>
  compare(sheet, board, take, drawer);
