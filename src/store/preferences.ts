import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { DecimalMark } from '@/core/quantity/parse';
import { followOtherTabs } from './other-tabs';
import type { Prices } from '@/core/weigh/prices';

export interface Preferences {
  theme: 'system' | 'light' | 'dark';
  resistors: 'box' | 'zigzag';
  mark: DecimalMark;
  /** Whether what tolerances make of a sheet is worked out and shown. */
  spread: boolean;
  /** Whether the book’s lines stand beside a sheet. */
  margin: boolean;
  /** What parts cost here, where that is not the usual price, for weighing designs up. */
  prices: Prices;
}

interface PreferencesState extends Preferences {
  set: (change: Partial<Preferences>) => void;
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
      prices: {},
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
