import type { SheetBoard } from '@/core/bench/board-circuit';
import type { NextStep } from '@/core/suspects/next-step';
import { attempt } from '../shell/tell';
import { changeBoard, readsWith } from './bench-actions';

/** A reading of a board is named by no more than so many letters. */
const LONGEST_KEY = 120;

/** What was read where the next measurement of a take was done; kept with the readings of the board. */
export function answerTo(board: SheetBoard, next: NextStep, take: string) {
  const key = `next ${take} ${next.kind} ${placeOf(next)}`.slice(0, LONGEST_KEY);
  return {
    value: board.reads?.[key],
    onAnswer: (value: number | null) =>
      attempt(() =>
        changeBoard(board.id, ({ reads }) => ({ reads: readsWith(reads, key, value) })),
      ),
  };
}

function placeOf(next: NextStep): string {
  switch (next.kind) {
    case 'level':
      return `${next.net} ${next.hz}`;
    case 'resistance':
      return next.between.join(' ');
    case 'part':
      return next.part;
  }
}
