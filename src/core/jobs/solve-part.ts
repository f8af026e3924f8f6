import { solvePart as solve, type PartQuestion } from '@/core/sheet/solve-part';
import type { Sheet } from '@/core/sheet/schema';
import type { SolveAnswer } from '@/core/solve/solve-for';
import type { Job } from './job';

/** What a part must be so that a reading is as wanted. */
export const solvePart: Job<{ sheet: Sheet; question: PartQuestion }, never, SolveAnswer> = ({
  sheet,
  question,
}) => solve(sheet, question);
