import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { evenly } from '@/core/speaker/tune/measure';
import { nearestMetres, solveCrossover } from './solve';
import { isCrossover } from './crossover-design';

/** How the sum dies away at each frequency. */
export interface DecayPicture {
  frequenciesHz: Float64Array;
  /** Periods of that frequency since the middle of a burst arrived. */
  periods: Float64Array;
  /** dB below the highest of each frequency’s own burst, by period, then by frequency. */
  levelDb: Float64Array[];
  problem: string | null;
}

const BURSTS = 141;
const UP_TO_PERIODS = 12;
const STEPS = 73;
/** A burst is so many periods long between the points where it is at 1/e of its height. */
const LONG = 2.5;
/** Its spectrum is taken out to so many of its widths, at so many frequencies. */
const REACH = 3.2;
const WITHIN = 49;

/**
 * What remains of a tone burst with a Gaussian envelope, exp(-(t f/a)^2), as time goes on: its
 * spectrum is exp(-(pi a (x - 1))^2) about the tone, with x over its frequency. Times the response and
 * summed over a grid this is the analytic signal, whose size is the envelope (D. Gabor, "Theory of
 * Communication", J. IEE 93, 1946). Time is told in periods, so that a resonance of one Q dies away
 * alike wherever it lies. A burst that passes unchanged is as long as `LONG` says.
 */
export function decayPicture(sheet: Sheet): DecayPicture {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = evenly(fromHz, toHz, BURSTS);
  const periods = Float64Array.from({ length: STEPS }, (_, n) => (n * UP_TO_PERIODS) / (STEPS - 1));
  const none: DecayPicture = { frequenciesHz, periods, levelDb: [], problem: null };
  if (!isCrossover(sheet)) return none;
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} decay`);
    const travel = nearestMetres(speaker) / SPEED_OF_SOUND;
    const width = 1 / (Math.PI * (LONG / 2));
    const apart = (2 * REACH * width) / (WITHIN - 1);
    const aside = Float64Array.from(
      { length: WITHIN },
      (_, j) => 1 + (j - (WITHIN - 1) / 2) * apart,
    );
    // A burst's own frequencies, in a row for all bursts.
    const hz = new Float64Array(BURSTS * WITHIN);
    frequenciesHz.forEach((f, b) => aside.forEach((x, j) => (hz[b * WITHIN + j] = f * x)));
    const { re, im } = speaker.sound(speaker.electrical(hz)).sum;
    const levelDb = Array.from(periods, () => new Float64Array(BURSTS));
    for (let b = 0; b < BURSTS; b++) {
      let most = 0;
      const sizes = Array.from({ length: STEPS }, (_, n) => {
        let [sr, si] = [0, 0];
        for (let j = 0; j < WITHIN; j++) {
          const k = b * WITHIN + j;
          const weight = Math.exp(-(((aside[j] - 1) / width) ** 2));
          const angle = 2 * Math.PI * (aside[j] * periods[n] + hz[k] * travel);
          const [cos, sin] = [weight * Math.cos(angle), weight * Math.sin(angle)];
          sr += re[k] * cos - im[k] * sin;
          si += re[k] * sin + im[k] * cos;
        }
        const size = Math.hypot(sr, si);
        most = Math.max(most, size);
        return size;
      });
      sizes.forEach((size, n) => (levelDb[n][b] = 20 * Math.log10(size / most + 1e-9)));
    }
    return { ...none, levelDb };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}
