import type { Sheet } from '@/core/sheet/schema';
import { playSlice } from './audition';
import { SLICE } from './heard';
import { heardOf } from './heard-circuit';
import type { Program } from './program';
import { Score } from './score';

/** Steps of the engine to a sample: what the trapezoidal rule errs by at 5 kHz is then some 90 dB down. */
export const RENDERED_TIMES = 32;

export interface RenderedRequest {
  way: number;
  program: Program;
  seconds: number;
  rate: number;
  /** At that rate, full scale at 1. */
  recording?: Float64Array;
}

/**
 * A program through a sheet's circuit, away from the clock: volts at its end, without a limiter and at
 * no common level; only their direct voltage is taken out.
 *
 * @returns a generator that stops between slices, with the part that is done
 * @throws ReedError where the way cannot be solved
 */
export function* rendered(
  sheet: Sheet,
  { way, program, seconds, rate, recording }: RenderedRequest,
): Generator<number, Float32Array> {
  const circuit = heardOf(sheet, way, rate, RENDERED_TIMES);
  const score = new Score(rate);
  score.play(program);
  score.record(recording);
  const count = Math.round(seconds * rate);
  const { late } = circuit;
  const volts = new Float32Array(count);
  const slice = new Float64Array(SLICE);
  for (let at = -late; at < count; at += SLICE) {
    playSlice(score, circuit, slice);
    for (let k = Math.max(0, -at); k < SLICE && at + k < count; k++) volts[at + k] = slice[k];
    yield Math.max(0, at) / count;
  }
  return volts;
}
