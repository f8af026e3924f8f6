import { joined, readPlan } from '@/core/plan/plan';
import { readLessons, useLessons } from './lessons';
import { usePlan } from './plan';
import { readPractice, usePractice } from './practice';
import { usePreferences } from './preferences';
import { readPreferences } from './read-preferences';

/** A small store beside the database, as an archive holds it. */
interface KeptSettings {
  state: () => object;
  /** Take what was kept elsewhere; what cannot be read of it is left as it is here. */
  take: (stored: unknown) => void;
}

/** Every one of them, by the name that it has in an archive: one line each. */
export const KEPT_SETTINGS: Readonly<Record<string, KeptSettings>> = {
  preferences: {
    state: usePreferences.getState,
    take: (stored) => usePreferences.setState(readPreferences(stored)),
  },
  practice: {
    state: usePractice.getState,
    take: (stored) => usePractice.setState(readPractice(stored)),
  },
  plan: {
    state: usePlan.getState,
    take: (stored) => usePlan.setState((here) => joined(here, readPlan(stored))),
  },
  lessons: {
    state: useLessons.getState,
    take: (stored) =>
      useLessons.setState(({ sheets }) => ({
        sheets: { ...sheets, ...readLessons(stored).sheets },
      })),
  },
};
