import { playRigBoard, type BoardPlay } from '@/core/bench/rig-board';
import type { Recording } from '@/core/sweep/swept';
import type { Job } from './job';

/** What comes back of samples that are played through a simulated board, or a wire in its place. */
export const playBoard: Job<BoardPlay, never, Recording[]> = playRigBoard;
