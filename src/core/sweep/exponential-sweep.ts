import { ReedError } from '@/core/errors';

/** A sweep whose frequency rises by the same factor in equal times. */
export interface SweepPlan {
  fromHz: number;
  toHz: number;
  seconds: number;
  /** Samples a second. */
  rate: number;
}

/** Of the sweep, so much at each end rises and falls gently. */
const FADE_IN = 0.04;
const FADE_OUT = 0.004;
const LEAST_SECONDS = 0.2;
const MOST_SECONDS = 60;

/** The time in which the frequency rises by a factor e: L of the literature, seconds. */
export const growthSeconds = ({ fromHz, toHz, seconds }: SweepPlan): number =>
  seconds / Math.log(toHz / fromHz);

/**
 * sin(2 pi f1 L (exp(t / L) - 1)), between -1 and 1 (A. Farina, "Simultaneous Measurement of Impulse
 * Response and Distortion with a Swept-Sine Technique", 108th AES Convention, 2000).
 *
 * @throws ReedError `range` for a plan that cannot be played
 */
export function exponentialSweep(plan: SweepPlan): Float64Array {
  const { fromHz, toHz, seconds, rate } = plan;
  if (!(fromHz > 0) || !(toHz > 2 * fromHz) || !(toHz <= rate / 2))
    throw new ReedError(
      'range',
      `A sweep from ${fromHz} to ${toHz} Hz cannot be played at ${rate} samples a second: it rises by at least an octave, up to half the rate.`,
    );
  if (!(seconds >= LEAST_SECONDS && seconds <= MOST_SECONDS))
    throw new ReedError(
      'range',
      `A sweep lasts from ${LEAST_SECONDS} to ${MOST_SECONDS} seconds, and not ${seconds}.`,
    );
  const count = Math.round(seconds * rate);
  const growth = growthSeconds(plan);
  const samples = new Float64Array(count);
  for (let n = 0; n < count; n++) {
    const phase = 2 * Math.PI * fromHz * growth * Math.expm1(n / rate / growth);
    samples[n] = Math.sin(phase) * fade(n / count);
  }
  return samples;
}

/** Half a cosine at either end. */
function fade(part: number): number {
  const rise = (x: number) => (x >= 1 ? 1 : (1 - Math.cos(Math.PI * x)) / 2);
  return rise(part / FADE_IN) * rise((1 - part) / FADE_OUT);
}
