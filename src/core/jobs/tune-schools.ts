import { tunedSchools, type SchoolResult } from '@/core/crossover/schools';
import { isCrossover } from '@/core/crossover/crossover-design';
import { ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** A crossover as each school has it, tuned; told one after the other. */
export const tuneSchools: Job<{ sheet: Sheet }, SchoolResult, SchoolResult[]> = async (
  { sheet },
  { pause, progress },
) => {
  if (!isCrossover(sheet)) throw new ReedError('document', 'The sheet is no crossover.');
  const search = tunedSchools(sheet);
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
    if (step.value) progress(step.value);
    await pause();
  }
};
