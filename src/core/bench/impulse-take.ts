import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { recordedImpulse } from '@/core/sweep/recorded-impulse';
import type { Recording } from '@/core/sweep/swept';
import { HIGHEST_TOLD, POINTS, type View } from './sweep-plan';

/** A silence in a spectrum is told down to this, dB. */
const LEAST_DB = -300;

/**
 * A take from an impulse response that was recorded, over the picture as far as it reaches. Levels only:
 * when it was that the impulse was sent nobody told.
 *
 * @throws ReedError `range` for what is no impulse response, and where it reaches into no octave of the picture
 */
export function takeOfImpulse({ fromHz, toHz }: View, recording: Recording): MeasuredCurve {
  const { lowestHz, spectrum } = recordedImpulse(recording);
  const low = Math.max(fromHz, lowestHz);
  const high = Math.min(toHz, HIGHEST_TOLD * recording.rate);
  if (!(high >= 2 * low))
    throw new ReedError(
      'range',
      `The recording tells from ${Math.ceil(lowestHz)} to ${Math.floor(HIGHEST_TOLD * recording.rate)} Hz, and the sheet’s picture shows ${fromHz} to ${toHz} Hz: record for longer or at a higher rate, or show another part.`,
    );
  const frequenciesHz = spaced(low, high, POINTS);
  const levelDb = levelsDb(spectrum(frequenciesHz)).map((db) => Math.max(LEAST_DB, db));
  return { frequenciesHz: Array.from(frequenciesHz), levelDb: Array.from(levelDb) };
}
