import { compareTake as compare, type Comparison, type TakenCurve } from '@/core/bench/compare';
import type { SheetBoard } from '@/core/bench/board-circuit';
import type { StockEntry } from '@/core/library/stock';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

export interface TakeOfBoard {
  sheet: Sheet;
  board: SheetBoard;
  take: TakenCurve;
  /** Other takes of it as it is now, that are weighed with it. */
  beside?: readonly TakenCurve[];
  drawer: readonly StockEntry[];
}

/** A take held against its board, and which part explains the difference. */
export const compareTake: Job<TakeOfBoard, never, Comparison> = ({
  sheet,
  board,
  take,
  drawer,
  beside,
}) => compare(sheet, board, take, drawer, beside);
