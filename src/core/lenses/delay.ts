import { groupDelay } from '@/core/analysis/sensitivity/sensitivity';
import type { Sheet } from '@/core/sheet/schema';
import { overLayers, withoutPause, type OverLayers, type Pause } from './layers';

export interface DelayTrace {
  frequenciesHz: Float64Array;
  seconds: Float64Array;
}

const POINTS = 160;

/** Group delay of every layer over the picture's span, exact at each point. */
export function delayLens(
  sheet: Sheet,
  pause: Pause = withoutPause,
): Promise<OverLayers<DelayTrace>> {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = Float64Array.from(
    { length: POINTS },
    (_, k) => fromHz * (toHz / fromHz) ** (k / (POINTS - 1)),
  );
  return overLayers(sheet, pause, (circuit) => ({
    frequenciesHz,
    seconds: groupDelay(circuit, 'out', frequenciesHz),
  }));
}
