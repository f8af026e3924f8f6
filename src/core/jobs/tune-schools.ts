import { tunedSchools, type SchoolResult } from '@/core/crossover/schools';
import { isCrossover } from '@/core/crossover/crossover-design';
import { ReedError } from '@/core/errors';
import { inSlices } from '@/core/lenses/layers';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** A crossover as each school has it, tuned; told one after the other. */
export const tuneSchools: Job<{ sheet: Sheet }, SchoolResult, SchoolResult[]> = async (
  { sheet },
  { pause, progress },
) => {
  if (!isCrossover(sheet)) throw new ReedError('document', 'The sheet is no crossover.');
  return inSlices(tunedSchools(sheet), pause, (school) => {
    if (school) progress(school);
  });
};
