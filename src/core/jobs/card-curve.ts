import { cardCurve as curveOf, type SmallCurve } from '@/core/bank/card-curve';
import { crossoverCurve } from '@/core/crossover/picture';
import { isCrossover } from '@/core/crossover/crossover-design';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** The small curve by which the shelf shows a sheet. */
export const cardCurve: Job<{ sheet: Sheet }, never, SmallCurve> = ({ sheet }) =>
  isCrossover(sheet) ? Promise.resolve(crossoverCurve(sheet)) : curveOf(sheet);
