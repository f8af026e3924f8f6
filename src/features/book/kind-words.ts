import type { Line } from '@/store/book-lines';

/** What a line tells of, in a word. */
export const KIND_WORDS: Readonly<Record<Line['kind'], string>> = {
  begun: 'begun',
  design: 'design',
  keep: 'keep',
  board: 'board',
  take: 'take',
  purchase: 'bought',
  note: 'note',
  lesson: 'lesson',
  damaged: 'damaged',
};

/** The kinds that a list is narrowed to, and what each of them holds. */
export const NARROWED = {
  all: null,
  design: ['begun', 'design', 'keep'],
  boards: ['board', 'take'],
  bought: ['purchase'],
  notes: ['note', 'lesson'],
} as const satisfies Record<string, readonly Line['kind'][] | null>;
export type Narrowing = keyof typeof NARROWED;

/** Whether a line is of a narrowed list; what somebody wrote to a line is a note too. */
export function isIn({ kind, note }: Line, narrowing: Narrowing): boolean {
  const kinds: readonly Line['kind'][] | null = NARROWED[narrowing];
  return kinds === null || kinds.includes(kind) || (narrowing === 'notes' && note !== '');
}
