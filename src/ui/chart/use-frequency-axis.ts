import { useMemo } from 'react';
import { frequencyLabel, frequencyTicks } from '@/core/quantity/frequency-ticks';
import type { PlotAxis } from './scales';

/** The axis of a picture over frequency; the same object as long as its ends are. */
export const useFrequencyAxis = (fromHz: number, toHz: number): PlotAxis =>
  useMemo(
    () => ({
      domain: [fromHz, toHz],
      log: true,
      ticks: frequencyTicks(fromHz, toHz).map((value) => ({ value, text: frequencyLabel(value) })),
    }),
    [fromHz, toHz],
  );
