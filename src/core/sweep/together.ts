import { ReedError } from '@/core/errors';
import { power } from './impulse';

/** What sweeps that were repeated may differ by, as a part of the power that they have in common. */
const DIFFERENT = 0.1;
/** What comes later by less than this has not jumped: its highest point is not known better. */
const LEAST_JUMP = 64;

/** Samples are looked for that were lost, up to so many, in so many stretches of a recording. */
const MOST_LOST = 64;
const STRETCHES = 96;
/** What differs by less than this of its power has not slipped. */
const DIFFERS = 1e-4;
/**
 * Nor has what differs by no more than noise and hum can: where they are opposite, by four times the power
 * that is heard where it is quiet, and twice that to be safe.
 */
const EXPLAINED = 8;
/** So many of all stretches are quiet, whatever the board. */
const QUIET = 0.1;
/** What fits this much better a few samples aside lost them. */
const FITS_BETTER = 4;

/** What several recordings of one sweep have in common, and what not. */
export interface Together {
  common: Float64Array;
  /** As much noise as `common` has, and nothing else; nothing where there is one recording. */
  apart?: Float64Array;
  /** True where they came differently late, and were put in step. */
  hasMoved: boolean;
}

/**
 * Put recordings of one sweep together. Converters may begin later one time than another: what is not
 * alike as it stands is put in step first. What was lost on the way, or heard besides, makes them unlike.
 *
 * @param arrivalOf at which sample the response in a recording begins
 * @throws ReedError `range` for recordings that are not alike
 */
export function together(
  recordings: readonly Float64Array[],
  arrivalOf: (samples: Float64Array) => number,
): Together {
  if (recordings.length === 1) return { common: recordings[0], hasMoved: false };
  if (areAlike(recordings)) return { ...sums(recordings), hasMoved: false };
  const arrivals = recordings.map(arrivalOf);
  const shifts = arrivals.map((at) => at - arrivals[0]);
  if (shifts.some((shift) => Math.abs(shift) >= LEAST_JUMP)) {
    const inStep = shifted(recordings, shifts);
    if (areAlike(inStep)) return { ...sums(inStep), hasMoved: true };
  }
  throw new ReedError(
    'range',
    'The repeated sweeps are not alike: something else was heard, something was lost on the way, or they are too quiet. Sweep once more; then turn the source up, and look for what hums or rattles.',
  );
}

function areAlike(recordings: readonly Float64Array[]): boolean {
  const { common, apart } = sums(recordings);
  const [first, ...others] = recordings;
  return (
    power(apart) <= DIFFERENT * power(common) && !others.some((other) => hasSlipped(first, other))
  );
}

/**
 * Whether a recording lost samples that another has, or has some more: from a place on it is the other a
 * few samples aside. Its power hardly tells, and yet the mean of both is too low from there on.
 */
function hasSlipped(a: Float64Array, b: Float64Array): boolean {
  const length = Math.floor(Math.min(a.length, b.length) / STRETCHES);
  const from = Array.from({ length: STRETCHES }, (_, i) => i * length);
  const powers = from.map((start) => power(a.subarray(start, start + length)));
  const quiet = powers.slice().sort((p, q) => p - q)[Math.floor(QUIET * STRETCHES)];
  return from.some((start, i) => {
    const apart = powerApart(a, b, start, length, 0, Infinity);
    if (apart < Math.max(DIFFERS * powers[i], EXPLAINED * quiet)) return false;
    const least = apart / FITS_BETTER;
    for (let lag = 1; lag <= MOST_LOST; lag++)
      for (const aside of [lag, -lag])
        if (powerApart(a, b, start, length, aside, least) < least) return true;
    return false;
  });
}

/** Power of what one recording has more than another that lies aside; no further than it is of interest. */
function powerApart(
  a: Float64Array,
  b: Float64Array,
  start: number,
  length: number,
  aside: number,
  enough: number,
): number {
  const from = Math.max(start, -aside);
  const to = Math.min(start + length, b.length - aside);
  let sum = 0;
  for (let n = from; n < to && sum < enough; n++) sum += (a[n] - b[n + aside]) ** 2;
  return sum;
}

/** Recordings in step with the first, as far as all of them reach. */
function shifted(
  recordings: readonly Float64Array[],
  shifts: readonly number[],
): readonly Float64Array[] {
  const from = Math.max(...shifts.map((shift) => Math.max(0, -shift)));
  const to = Math.min(...recordings.map((samples, i) => samples.length - shifts[i]));
  return recordings.map((samples, i) => {
    const own = new Float64Array(recordings[0].length);
    own.set(samples.subarray(from + shifts[i], Math.max(from, to) + shifts[i]), from);
    return own;
  });
}

function sums(recordings: readonly Float64Array[]): {
  common: Float64Array;
  apart: Float64Array;
} {
  return {
    common: weighed(recordings, () => 1),
    apart: weighed(recordings, alternating(recordings.length)),
  };
}

/** Recordings added up, each with its weight, as a mean. */
function weighed(
  recordings: readonly Float64Array[],
  weightOf: (which: number) => number,
): Float64Array {
  const sum = new Float64Array(Math.min(...recordings.map((r) => r.length)));
  recordings.forEach((samples, which) => {
    const weight = weightOf(which) / recordings.length;
    if (weight !== 0) for (let n = 0; n < sum.length; n++) sum[n] += weight * samples[n];
  });
  return sum;
}

/** Weights that leave nothing of what recordings have in common, and of noise as much as their mean has. */
function alternating(count: number): (which: number) => number {
  const even = count - (count % 2);
  const scale = Math.sqrt(count / even);
  return (which) => (which >= even ? 0 : which % 2 === 0 ? scale : -scale);
}
