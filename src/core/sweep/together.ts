import { ReedError } from '@/core/errors';
import { power } from './impulse';

/** What sweeps that were repeated may differ by, as a part of the power that they have in common. */
const DIFFERENT = 0.1;
/** What comes later by less than this has not jumped: its highest point is not known better. */
const LEAST_JUMP = 64;

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
  const asTheyStand = sums(recordings);
  if (areAlike(asTheyStand)) return { ...asTheyStand, hasMoved: false };
  const arrivals = recordings.map(arrivalOf);
  const shifts = arrivals.map((at) => at - arrivals[0]);
  if (shifts.some((shift) => Math.abs(shift) >= LEAST_JUMP)) {
    const inStep = sums(shifted(recordings, shifts));
    if (areAlike(inStep)) return { ...inStep, hasMoved: true };
  }
  throw new ReedError(
    'range',
    'The repeated sweeps are not alike: something else was heard, something was lost on the way, or they are too quiet. Sweep once more; then turn the source up, and look for what hums or rattles.',
  );
}

const areAlike = ({ common, apart }: { common: Float64Array; apart: Float64Array }): boolean =>
  power(apart) <= DIFFERENT * power(common);

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
