import type { Sheet } from '@/core/sheet/schema';

/** One way of writing the open sheet out. */
export interface Export {
  id: string;
  title: string;
  /** @throws ReedError where there is nothing to write, in words */
  run(sheet: Sheet): Promise<void> | void;
}
