import { findPeak } from '@/core/numeric/root';
import { spaced } from '@/core/response/landmarks';
import type { SpeakerTarget } from '../document';
import { soundLevels } from '../sound-levels';
import type { SolvedSpeaker } from '../solved-speaker';

/** What a target asks of a speaker, as it is. */
export interface Achieved {
  /** By how much the sum departs from its own mean over the band, at most. */
  withinDb: number;
  /** Least impedance from 20 Hz to 20 kHz; infinite of a speaker that is solved without it. */
  leastOhms: number;
}

/** Where the amplifier's load is looked at. */
export const LOAD_BAND = { fromHz: 20, toHz: 20_000 } as const;

const BAND_POINTS = 361;
const LOAD_POINTS = 361;

const grids = new Map<string, Float64Array>();
const MOST_GRIDS = 60;

/** `spaced`, the same object for the same question: what is remembered of a grid is found again by it. */
export function evenly(fromHz: number, toHz: number, points: number): Float64Array {
  const key = `${fromHz} ${toHz} ${points}`;
  let grid = grids.get(key);
  if (!grid) {
    if (grids.size >= MOST_GRIDS) grids.clear();
    grids.set(key, (grid = spaced(fromHz, toHz, points)));
  }
  return grid;
}

/** Levels of the sum at the listening place, dB re 20 uPa. */
export function sumLevels(speaker: SolvedSpeaker, frequenciesHz: Float64Array): Float64Array {
  return soundLevels(speaker.sound(speaker.electrical(frequenciesHz)).sum);
}

/** The largest distance of values from their mean. */
export function spreadAboutMean(values: Float64Array): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return values.reduce((most, v) => Math.max(most, Math.abs(v - mean)), 0);
}

export function achieved(
  speaker: SolvedSpeaker,
  { fromHz, toHz }: Pick<SpeakerTarget, 'fromHz' | 'toHz'>,
): Achieved {
  const levels = sumLevels(speaker, evenly(fromHz, toHz, BAND_POINTS));
  return {
    withinDb: spreadAboutMean(levels),
    leastOhms: speaker.loaded ? leastImpedance(speaker).ohms : Infinity,
  };
}

/** The least impedance that the amplifier sees, and where. */
export function leastImpedance(
  speaker: SolvedSpeaker,
  { fromHz, toHz }: { fromHz: number; toHz: number } = LOAD_BAND,
): { ohms: number; atHz: number } {
  const sizes = (hz: Float64Array) => {
    const z = speaker.impedance(speaker.electrical(hz));
    return z.re.map((re, k) => Math.hypot(re, z.im[k]));
  };
  const grid = evenly(fromHz, toHz, LOAD_POINTS);
  const all = sizes(grid);
  const at = all.reduce((least, z, k) => (z < all[least] ? k : least), 0);
  const logs = [Math.max(0, at - 1), Math.min(grid.length - 1, at + 1)].map((k) =>
    Math.log(grid[k]),
  );
  const found = findPeak((u) => -sizes(Float64Array.of(Math.exp(u)))[0], logs[0], logs[1], 1e-5);
  const ohms = sizes(Float64Array.of(Math.exp(found)))[0];
  return ohms < all[at] ? { ohms, atHz: Math.exp(found) } : { ohms: all[at], atHz: grid[at] };
}
