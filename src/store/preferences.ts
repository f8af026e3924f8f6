import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { DecimalMark } from '@/core/quantity/parse';

export interface Preferences {
  theme: 'system' | 'light' | 'dark';
  resistors: 'box' | 'zigzag';
  mark: DecimalMark;
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
      set: (change) => set(change),
    }),
    {
      name: 'jaunty-reed-preferences',
      version: 1,
      partialize: ({ theme, resistors, mark }) => ({ theme, resistors, mark }),
    },
  ),
);
