import { foresee as see, type Foreseen } from '@/core/bench/foreseen';
import type { StockEntry } from '@/core/library/stock';
import type { Sheet } from '@/core/sheet/schema';
import type { Job } from './job';

/** What boards of a sheet should measure like. */
export const foresee: Job<{ sheet: Sheet; drawer: readonly StockEntry[] }, never, Foreseen> = (
  { sheet, drawer },
  { pause },
) => see(sheet, drawer, pause);
