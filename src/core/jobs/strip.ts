import { inSlices } from '@/core/lenses/layers';
import type { Sheet } from '@/core/sheet/schema';
import { boardComponents } from '@/core/sheet/stripboard';
import type { Board } from '@/core/strip/board';
import { planned } from '@/core/strip/plan';
import type { Job } from './job';

/** A stripboard for a sheet’s path; how far the search is comes as it goes. */
export const strip: Job<{ sheet: Sheet; seed: number }, number, Board> = (
  { sheet, seed },
  { pause, progress },
) => inSlices(planned(boardComponents(sheet), seed), pause, progress);
