import { ReedError } from '@/core/errors';
import { controlOf, turnedTo } from '@/core/sheet/knobs/travel';
import { pathCircuit } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { seekingThreshold } from '@/core/synth/threshold';
import { inSlices, withoutPause, type Pause } from './layers';

export interface SingingRequest {
  /** The control that is turned up, as a rule the resonance. */
  control: string;
}

/** Where a filter begins to sing as a control is turned up, everything else as it stands. */
export interface SingingPicture {
  /** Of the travel, 0 to 1; null where it never does. */
  at: number | null;
  hz: number | null;
  /** Why it never does. */
  why: string | null;
}

/**
 * The setting at which a pair of poles of the biased circuit reaches the axis.
 *
 * @throws ReedError `range` for a control that is not there, or as solving the path
 */
export async function singingLens(
  sheet: Sheet,
  { control }: SingingRequest,
  pause: Pause = withoutPause,
): Promise<SingingPicture> {
  if (!controlOf(sheet, control))
    throw new ReedError('range', 'The control is gone: choose another.');
  const at = (place: number) => pathCircuit(turnedTo(sheet, control, place), 0, 'built');
  const search = seekingThreshold(at, { from: 0, to: 1, even: true });
  const { value, hz, why } = await inSlices(search, pause);
  return { at: value, hz, why };
}
