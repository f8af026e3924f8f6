import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { followOtherTabs } from './other-tabs';
import { recordSchema, UNTOUCHED, type PracticeRecord } from '@/core/practice/record';

interface PracticeState {
  /** Which boards are on the ladder. */
  deal: number;
  /** What was done with each, by its key. */
  records: Readonly<Record<string, PracticeRecord>>;
}

const KEY = 'jaunty-reed-practice';
// Above the store: that reads what was kept while it is being made.
const MOST_DEALS = 9999;

/** How far this person has come with practice boards; kept in this browser. */
export const usePractice = create<PracticeState>()(
  persist((): PracticeState => ({ deal: 1, records: {} }), {
    name: KEY,
    version: 1,
    merge: (stored, now) => ({ ...now, ...readPractice(stored) }),
  }),
);

followOtherTabs(usePractice, KEY);

/** What can be read of what was stored; what cannot is as if nothing had been done. */
export function readPractice(stored: unknown): Partial<PracticeState> {
  if (typeof stored !== 'object' || stored === null) return {};
  const { deal, records } = stored as Record<string, unknown>;
  const isDeal = typeof deal === 'number' && Number.isInteger(deal) && deal > 0;
  return {
    ...(isDeal && deal <= MOST_DEALS ? { deal } : {}),
    records: Object.fromEntries(
      Object.entries(typeof records === 'object' && records !== null ? records : {}).flatMap(
        ([key, record]) => {
          const { success, data } = recordSchema.safeParse(record);
          return success ? [[key, data]] : [];
        },
      ),
    ),
  };
}

export const recordOf = ({ records }: PracticeState, key: string): PracticeRecord =>
  records[key] ?? UNTOUCHED;

/** Go on with a board: what was done with it before and what is done now. */
export function goOn(
  key: string,
  change: (before: PracticeRecord) => Partial<PracticeRecord>,
): void {
  usePractice.setState((state) => {
    const before = recordOf(state, key);
    const record = recordSchema.parse({ ...before, ...change(before) });
    return { records: { ...state.records, [key]: record } };
  });
}

/** Other boards on the ladder; what was done with these is kept. */
export function dealAnew(): void {
  usePractice.setState(({ deal }) => ({ deal: (deal % MOST_DEALS) + 1 }));
}
