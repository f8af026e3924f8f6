/** What a change is of; the book groups and names by it. */
export const CHANGE_KINDS = [
  'name',
  'ask',
  'value',
  'part',
  'path',
  'surroundings',
  'reading',
  'control',
  'layout',
  'board',
  'take',
  'keep',
] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/** One thing that two states of a sheet differ in, in words. */
export interface Change {
  kind: ChangeKind;
  /** “C2”, “Ask: edge”, “Board 7: take”. */
  what: string;
  /** As it was; null where it was not there. */
  before: string | null;
  /** As it is; null where it is gone. */
  after: string | null;
}

/** “C2 22n → 2 × 10n”, “C9 100p added”, “keep “first try” removed”. */
export function changeWords({ what, before, after }: Change): string {
  if (before === null)
    return after === null || after === '' ? `${what} added` : `${what}: ${after} added`;
  if (after === null) return before === '' ? `${what} removed` : `${what}: ${before} removed`;
  return `${what} ${before} → ${after}`;
}

/** The same change gone back on. */
export const reversed = ({ before, after, ...rest }: Change): Change => ({
  ...rest,
  before: after,
  after: before,
});
