import { playRigBoard, type RigBoard } from '@/core/bench/rig-board';
import type { Sheet } from '@/core/sheet/schema';
import type { Recording } from '@/core/sweep/swept';
import type { Job } from './job';

/** What comes back of samples that are played through a simulated board, or a wire in its place. */
export const playBoard: Job<
  {
    sheet: Sheet;
    board: RigBoard;
    through: 'board' | 'wire';
    samples: Float64Array;
    turn: number;
  },
  never,
  Recording
> = ({ sheet, board, through, samples, turn }) =>
  playRigBoard(sheet, board, through, samples, turn);
