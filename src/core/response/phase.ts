import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { phaseDegrees } from './response';

/*
 * Which turn a phase belongs to is known where the level is flat: there a filter passes its signal
 * as it is or turned over. From there the phase is followed without jumps to either side.
 */

/** An angle brought into (top - 360, top]. */
const within = (degrees: number, top: number) => degrees - 360 * Math.ceil((degrees - top) / 360);

/** Of a signal in its pass band: about 0, or about -180 where it is turned over. */
const passing = (degrees: number) => within(degrees, 90);

/** From one point to the next: beside a zero on the axis, which jumps half a turn, upwards. */
const stepping = (degrees: number) => within(degrees, 185);

/**
 * Phase along a trace in degrees, followed from the points whose index is given; between two such
 * points the change of hands is at `split`.
 */
export function followedDegrees(
  trace: ComplexTrace,
  from: readonly number[],
  split?: number,
): Float64Array {
  const wrapped = trace.re.map((re, k) => phaseDegrees(re, trace.im[k]));
  const out = new Float64Array(wrapped.length);
  const last = wrapped.length - 1;
  from.forEach((start, i) => {
    const [least, most] =
      from.length === 1
        ? [0, last]
        : i === 0
          ? [0, Math.min(last, (split ?? last) - 1)]
          : [split ?? 0, last];
    if (start < least || start > most) return;
    out[start] = passing(wrapped[start]);
    for (let k = start + 1; k <= most; k++)
      out[k] = out[k - 1] + stepping(wrapped[k] - wrapped[k - 1]);
    for (let k = start - 1; k >= least; k--)
      out[k] = out[k + 1] - stepping(wrapped[k + 1] - wrapped[k]);
  });
  return out;
}
