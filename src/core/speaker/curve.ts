import type { Complex } from '@/core/numeric/complex';
import { minimumPhaseDegrees, type Tails } from './minimum-phase';

/** A complex quantity over frequency from a table: size in dB, phase in degrees, straight between rows. */
export interface Curve {
  logHz: Float64Array;
  db: Float64Array;
  degrees: Float64Array;
  tails: Tails;
}

/**
 * A curve from the columns of a table.
 *
 * @param phaseDegrees as measured, in any turn; without it minimum phase with the given tails is taken
 */
export function curveOf(
  frequenciesHz: readonly number[],
  db: readonly number[],
  phaseDegrees: readonly number[] | undefined,
  tails: Tails,
): Curve {
  return {
    logHz: Float64Array.from(frequenciesHz, Math.log),
    db: Float64Array.from(db),
    degrees: phaseDegrees ? unwrapped(phaseDegrees) : minimumPhaseDegrees(frequenciesHz, db, tails),
    tails,
  };
}

/** Degrees that go on from row to row by half a turn at most. */
function unwrapped(degrees: readonly number[]): Float64Array {
  const out = Float64Array.from(degrees);
  for (let i = 1; i < out.length; i++)
    out[i] =
      out[i - 1] + (degrees[i] - out[i - 1]) - 360 * Math.round((degrees[i] - out[i - 1]) / 360);
  return out;
}

/** Whether a table says something of a frequency. */
export const reaches = ({ logHz }: Curve, hz: number): boolean => {
  const u = Math.log(hz);
  // A frequency that was the table's end before it was rounded still is.
  return u >= logHz[0] - 1e-9 && u <= logHz[logHz.length - 1] + 1e-9;
};

/** The curve at a frequency; beyond its ends it falls on with its tails, at the phase it ended with. */
export function curveAt({ logHz, db, degrees, tails }: Curve, hz: number): Complex {
  const u = Math.log(hz);
  const last = logHz.length - 1;
  if (u <= logHz[0]) return polar(db[0] + (tails.lowSlope * (u - logHz[0])) / Math.LN2, degrees[0]);
  if (u >= logHz[last])
    return polar(db[last] + (tails.highSlope * (u - logHz[last])) / Math.LN2, degrees[last]);
  const i = placeIn(logHz, u);
  const t = (u - logHz[i]) / (logHz[i + 1] - logHz[i]);
  return polar(db[i] + t * (db[i + 1] - db[i]), degrees[i] + t * (degrees[i + 1] - degrees[i]));
}

/** The row before `u`, the last but one at most. */
export function placeIn(logHz: Float64Array, u: number): number {
  let [low, high] = [0, logHz.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (logHz[middle] <= u) low = middle;
    else high = middle;
  }
  return low;
}

function polar(db: number, degrees: number): Complex {
  const size = 10 ** (db / 20);
  const angle = (degrees * Math.PI) / 180;
  return { re: size * Math.cos(angle), im: size * Math.sin(angle) };
}
