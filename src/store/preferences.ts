import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { DecimalMark } from '@/core/quantity/parse';
import { DEFAULT_PRICES, type Prices } from '@/core/weigh/prices';

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

interface PreferencesState extends Preferences {
  set: (change: Partial<Preferences>) => void;
}

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
      name: 'jaunty-reed-preferences',
      version: 1,
      partialize: ({ theme, resistors, mark, spread, margin, prices }) => ({
        theme,
        resistors,
        mark,
        spread,
        margin,
        prices,
      }),
    },
  ),
);
