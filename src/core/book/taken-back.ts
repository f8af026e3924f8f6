import type { BookEntry } from './entry';

/** A line of which every step was gone back on. */
export const isTakenBack = ({ steps }: Pick<BookEntry, 'steps'>): boolean =>
  steps.length > 0 && steps.every((s) => s.undone);
