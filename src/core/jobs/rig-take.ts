import { measureRigBoard, type RigBoard } from '@/core/bench/rig-board';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** A take of a simulated board. */
export const rigTake: Job<{ sheet: Sheet; board: RigBoard }, never, MeasuredCurve> = ({
  sheet,
  board,
}) => measureRigBoard(sheet, board);
