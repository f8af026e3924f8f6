import { measureRigBoard, type RigBoard } from '@/core/bench/rig-board';
import type { MeasuredCurve } from '@/core/library/take-table';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** What a simulated bridge reads of a simulated board, point by point. */
export const bridge: Job<
  { sheet: Sheet; board: RigBoard; noiseDb: number },
  never,
  MeasuredCurve
> = ({ sheet, board, noiseDb }) => measureRigBoard(sheet, { ...board, noiseDb });
