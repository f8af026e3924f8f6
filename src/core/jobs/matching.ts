import { bestMatching, type Matching } from '@/core/sheet/matching';
import type { SheetSpreadOptions } from '@/core/sheet/spread-sheet';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** Which two parts to match, for one of the readings of a sheet. */
export const matching: Job<
  { sheet: Sheet; reading: number } & Omit<SheetSpreadOptions, 'boards' | 'tied'>,
  never,
  Matching | null
> = async ({ sheet, reading, ...options }, { pause }) => {
  const search = bestMatching(sheet, reading, options);
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
    await pause();
  }
};
