import type { DecimalMark } from '@/core/quantity/parse';
import type { Reading } from '@/core/sheet/schema';

/** One reading; what the versions make of it, its cells ask for themselves. */
export interface ReadingLine {
  reading: Reading;
  mark: DecimalMark;
  /** What it is called, and where it is read. */
  name: string;
}
