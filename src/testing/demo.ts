import made from '@/core/demo/made.json';
import type { Sheet } from '@/core/sheet/schema';

/** The demo sheets as they were written down; designing and fitting them anew takes seconds. */
export const demoMade = (at: string): Sheet[] =>
  (structuredClone(made) as unknown as Sheet[]).map((sheet) => ({
    ...sheet,
    createdAt: at,
    updatedAt: at,
    keeps: sheet.keeps.map((keep) => ({ ...keep, at })),
  }));
