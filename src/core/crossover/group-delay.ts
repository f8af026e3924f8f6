import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { evenly } from '@/core/speaker/tune/measure';
import type { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import { nearestMetres, solveCrossover } from './solve';
import { isCrossover } from './crossover-design';

export interface CrossoverDelayPicture {
  frequenciesHz: Float64Array;
  /** Of the sum and of each way, without the time that sound takes from the nearest driver. */
  sumSeconds: Float64Array;
  /** No number where a way is too faint beside the sum to be heard. */
  ways: { id: string; seconds: Float64Array }[];
  problem: string | null;
}

const POINTS = 241;
/** Phase is taken so little to either side, as a part of the frequency. */
const ASIDE = 1e-4;

/** Group delay of what the listener hears: -d phase/d w, by central differences. */
export function crossoverDelayPicture(sheet: Sheet): CrossoverDelayPicture {
  const { fromHz, toHz } = sheet.view;
  const frequenciesHz = evenly(fromHz, toHz, POINTS);
  const none = { frequenciesHz, sumSeconds: new Float64Array(0), ways: [], problem: null };
  if (!isCrossover(sheet)) return none;
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} delay`);
    const { sum, ways } = delaysOf(speaker, frequenciesHz);
    return {
      ...none,
      sumSeconds: sum,
      ways: ways.map((seconds, i) => ({ id: sheet.ways[i].id, seconds })),
    };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}

/**
 * Group delays of the sum and of each way, seconds, without the time of the way from the nearest
 * driver; of a way no number where it is too faint beside the sum.
 */
export function delaysOf(
  speaker: SolvedSpeaker,
  frequenciesHz: Float64Array,
): { sum: Float64Array; ways: Float64Array[] } {
  const around = new Float64Array(2 * frequenciesHz.length);
  frequenciesHz.forEach((hz, k) => {
    around[2 * k] = hz * (1 - ASIDE);
    around[2 * k + 1] = hz * (1 + ASIDE);
  });
  const { sum, ways } = speaker.sound(speaker.electrical(around));
  const travel = nearestMetres(speaker) / SPEED_OF_SOUND;
  const delayOf = ({ re, im }: ComplexTrace): Float64Array =>
    frequenciesHz.map((hz, k) => {
      const [a, b] = [2 * k, 2 * k + 1];
      // The angle of b over a, without that of the way through the air.
      const turned = Math.atan2(im[b] * re[a] - re[b] * im[a], re[b] * re[a] + im[b] * im[a]);
      const apart = 2 * Math.PI * 2 * ASIDE * hz;
      const left = turned + apart * travel;
      return -(left - 2 * Math.PI * Math.round(left / (2 * Math.PI))) / apart;
    });
  return {
    sum: delayOf(sum),
    ways: ways.map((way) => delayOf(way).map((s, k) => (isHeard(way, sum, 2 * k) ? s : NaN))),
  };
}

/** Ways fainter than this beside the sum are not told of. */
const HEARD = 10 ** (-30 / 20);

const isHeard = (way: ComplexTrace, sum: ComplexTrace, k: number): boolean =>
  Math.hypot(way.re[k], way.im[k]) > HEARD * Math.hypot(sum.re[k], sum.im[k]);
