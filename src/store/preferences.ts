import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { DecimalMark } from '@/core/quantity/parse';
import * as z from 'zod';
import { followOtherTabs } from './other-tabs';
import { DEFAULT_PRICES, pricesSchema, type Prices } from '@/core/weigh/prices';

export interface Preferences {
  theme: 'system' | 'light' | 'dark';
  resistors: 'box' | 'zigzag';
  mark: DecimalMark;
  /** Whether what tolerances make of a sheet is worked out and shown. */
  spread: boolean;
  /** Whether the book’s lines stand beside a sheet. */
  margin: boolean;
  /** What parts cost here, for weighing designs up. */
  prices: Prices;
}

const preferencesSchema = z
  .object({
    theme: z.enum(['system', 'light', 'dark']),
    resistors: z.enum(['box', 'zigzag']),
    mark: z.enum(['point', 'comma']),
    spread: z.boolean(),
    margin: z.boolean(),
    prices: pricesSchema,
  })
  .partial();

interface PreferencesState extends Preferences {
  set: (change: Partial<Preferences>) => void;
}

/** What can be read of preferences that were stored elsewhere; what cannot is left as it is. */
export function readPreferences(stored: unknown): Partial<Preferences> {
  const result = preferencesSchema.safeParse(stored);
  return result.success ? result.data : {};
}

const KEY = 'jaunty-reed-preferences';

/** How this person likes things shown; kept in this browser. */
export const usePreferences = create<PreferencesState>()(
  persist(
    (set) => ({
      theme: 'system',
      resistors: 'box',
      mark: 'point',
      spread: true,
      margin: false,
      prices: DEFAULT_PRICES,
      set: (change) => set(change),
    }),
    {
      name: KEY,
      // Never raised: an earlier version in another tab would put its own in their place.
      version: 1,
      // What a newer version in another tab knows beside these stays beside them.
      partialize: ({ set: _, ...kept }) => kept,
    },
  ),
);

followOtherTabs(usePreferences, KEY);
