import type { Sheet } from '@/core/sheet/schema';

/** Whether a sheet is heard as the sum of its ways: a crossover at its listener, a bank at its mix. */
export const isSum = (sheet: Pick<Sheet, 'crossover' | 'bank'>): boolean =>
  sheet.crossover !== undefined || sheet.bank !== undefined;
