import { ReedError } from '@/core/errors';

/** Frequencies within an octave are neighbours. */
const PER_OCTAVE = 1;
/** The neighbourhood of 0 Hz. */
const AT_REST = -100_000;

/** The frequencies of a question, ready to be solved at. */
export interface Question {
  frequenciesHz: Float64Array;
  /** Radians a second. */
  omega: Float64Array;
  /** Which neighbourhood each belongs to, by number. */
  neighbourhoods: Int32Array;
}

/**
 * @param last the question before: where the frequencies are the same, it is the same question
 * @throws ReedError `range` for a frequency that is negative or no number
 */
export function questionOf(frequenciesHz: Float64Array, last?: Question): Question {
  if (last && same(frequenciesHz, last.frequenciesHz)) return last;
  const count = frequenciesHz.length;
  const omega = new Float64Array(count);
  const neighbourhoods = new Int32Array(count);
  for (let k = 0; k < count; k++) {
    const hz = frequenciesHz[k];
    if (!(hz >= 0 && hz < Infinity))
      throw new ReedError('range', `${hz} is not a frequency: give hertz, zero or more.`);
    omega[k] = 2 * Math.PI * hz;
    neighbourhoods[k] = hz > 0 ? Math.floor(Math.log2(hz) * PER_OCTAVE) : AT_REST;
  }
  return { frequenciesHz: frequenciesHz.slice(), omega, neighbourhoods };
}

function same(a: Float64Array, b: Float64Array): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}
