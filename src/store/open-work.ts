import type { Sheet } from '@/core/sheet/schema';

/*
 * What the shell asks of the open sheet, also on screens where none was ever opened. What reads and
 * stores sheets is large, so it makes itself known here once it is there.
 */

export interface OpenWork {
  /** The open sheet as it is now, stored or not. */
  sheet: () => Sheet | null;
  /** Whether closing the page now would lose an edit that the store has refused. */
  wouldLose: () => boolean;
  /** Store what has not been stored yet. */
  flush: () => Promise<void>;
}

const NOTHING_OPENED: OpenWork = {
  sheet: () => null,
  wouldLose: () => false,
  flush: () => Promise.resolve(),
};

let work = NOTHING_OPENED;

/** From now on sheets can be open, and this one knows of them. */
export function openedBy(keeper: OpenWork): void {
  work = keeper;
}

export const openWork = (): OpenWork => work;
