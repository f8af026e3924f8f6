import { bestMatching, type Matching } from '@/core/sheet/matching';
import type { SheetSpreadOptions } from '@/core/sheet/spread-sheet';
import type { Sheet } from '@/core/sheet/schema';
import { inSlices } from '@/core/lenses/layers';
import type { Job } from './job';

/** Which two parts to match, for one of the readings of a sheet. */
export const matching: Job<
  { sheet: Sheet; reading: number } & Omit<SheetSpreadOptions, 'boards' | 'tied'>,
  never,
  Matching | null
> = ({ sheet, reading, ...options }, { pause }) =>
  inSlices(bestMatching(sheet, reading, options), pause);
