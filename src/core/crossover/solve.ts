import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { sightOf } from '@/core/speaker/place';
import { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import type { CrossoverDesign } from './crossover-design';
import { isActive } from './active';
import { speakerOf, type Load } from './speaker-of';

/** Speakers that were solved last, by what they are layers of: their equations are taken over. */
const kept = new Map<string, SolvedSpeaker>();
const MOST_KEPT = 12;

/** A crossover, solved; edits of values keep the equations of the last one under the same name. */
export function solveCrossover(design: CrossoverDesign, load: Load, name: string): SolvedSpeaker {
  const solved = new SolvedSpeaker(
    speakerOf(design, load),
    kept.get(name),
    !design.ways.every(isActive),
  );
  kept.delete(name);
  kept.set(name, solved);
  for (const oldest of kept.keys()) {
    if (kept.size <= MOST_KEPT) break;
    kept.delete(oldest);
  }
  return solved;
}

/** Sum of ways, some turned over. */
export function summed(ways: readonly ComplexTrace[], signs: readonly number[]): ComplexTrace {
  const sum = { re: new Float64Array(ways[0].re.length), im: new Float64Array(ways[0].re.length) };
  ways.forEach(({ re, im }, w) => {
    for (let k = 0; k < re.length; k++) {
      sum.re[k] += signs[w] * re[k];
      sum.im[k] += signs[w] * im[k];
    }
  });
  return sum;
}

/** Every second way turned over: what is in phase where two ways meet is a null then. */
export const alternating = (count: number): number[] =>
  Array.from({ length: count }, (_, w) => (w % 2 === 0 ? 1 : -1));

/** How far the listener is from the driver that is nearest. */
export const nearestMetres = ({ document: { drivers, listen } }: SolvedSpeaker): number =>
  Math.min(...drivers.map(({ place }) => sightOf(place, listen).metres));

/** Phases in degrees without the delay of the way to the listener. */
export function phasesAtListener(
  { re, im }: ComplexTrace,
  frequenciesHz: Float64Array,
  metres: number,
): Float64Array {
  return re.map((x, k) => {
    const turned =
      Math.atan2(im[k], x) + (2 * Math.PI * frequenciesHz[k] * metres) / SPEED_OF_SOUND;
    const degrees = (turned * 180) / Math.PI;
    return degrees - 360 * Math.round(degrees / 360);
  });
}
