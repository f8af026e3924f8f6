import { isCrossover } from '@/core/crossover/crossover-design';
import { tuningOf, type TuneProgress, type TuneResult, type TuneWish } from '@/core/crossover/tune';
import { ReedError } from '@/core/errors';
import { inSlices } from '@/core/lenses/layers';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** Values that bring a crossover to what is asked of it, with how far the search has come. */
export const tuneCrossover: Job<
  { sheet: Sheet; wish: TuneWish },
  TuneProgress,
  TuneResult
> = async ({ sheet, wish }, { pause, progress }) => {
  if (!isCrossover(sheet)) throw new ReedError('document', 'The sheet is no crossover.');
  await pause();
  return inSlices(tuningOf(sheet, wish), pause, progress);
};
