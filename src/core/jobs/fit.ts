import { fitWay, type FitOptions, type WayFit } from '@/core/sheet/fit-way';
import type { Sheet, Way } from '@/core/sheet/schema';
import type { Job } from './job';

/** Real values for a way of a sheet; the best so far is handed over as it gets better. */
export const fit: Job<{ sheet: Sheet; options?: FitOptions }, Way, WayFit> = async (
  { sheet, options },
  { pause, progress },
) => {
  const search = fitWay(sheet, options);
  let last = '';
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
    const told = JSON.stringify(value);
    if (told !== last) progress(value);
    last = told;
    await pause();
  }
};
