import { inSlices } from '@/core/lenses/layers';
import { fitWay, type FitOptions, type WayFit } from '@/core/sheet/fit-way';
import type { Sheet, Way } from '@/core/sheet/schema';
import type { Job } from './job';

/** Real values for a way of a sheet; the best so far is handed over as it gets better. */
export const fit: Job<{ sheet: Sheet; options?: FitOptions }, Way, WayFit> = (
  { sheet, options },
  { pause, progress },
) => {
  const search = fitWay(sheet, options);
  let last = '';
  return inSlices(search, pause, (way) => {
    const told = JSON.stringify(way);
    if (told !== last) progress(way);
    last = told;
  });
};
