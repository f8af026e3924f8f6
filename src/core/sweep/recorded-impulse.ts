import { ReedError } from '@/core/errors';
import {
  AHEAD_SECONDS,
  arrivalOf,
  circleOf,
  isSoon,
  LONGEST_SECONDS,
  peakOf,
  SILENT,
  spectrumOf,
} from './impulse';
import type { Recording } from './swept';

/** Lower than so many periods of what is there, nothing is told. */
const PERIODS = 2;

/**
 * What a recording of an impulse response can tell.
 *
 * @returns the lowest frequency that it is long enough for, and what reads its spectrum
 * @throws ReedError `range` for what is silent, too short or no impulse response
 */
export function recordedImpulse({ samples, rate }: Recording) {
  if (peakOf(samples) < SILENT)
    throw new ReedError('range', 'The recording is silent: it holds no impulse response.');
  const circle = new Float64Array(circleOf(samples.length));
  circle.set(samples);
  const impulse = { samples: circle, rate };
  if (!isSoon(impulse))
    throw new ReedError(
      'range',
      'The recording is no impulse response: one begins with its highest point and dies away. A recorded sweep is brought in where it is swept.',
    );
  const zero = arrivalOf(impulse);
  const seconds = Math.min(LONGEST_SECONDS, samples.length / rate - zero);
  const window = { fromSeconds: zero - AHEAD_SECONDS, toSeconds: zero + seconds };
  return {
    lowestHz: PERIODS / seconds,
    spectrum: (frequenciesHz: Float64Array) => spectrumOf(impulse, window, zero, frequenciesHz),
  };
}
