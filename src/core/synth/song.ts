import { AcAnalysis } from '@/core/analysis/ac/ac';
import { growth, polesOf } from '@/core/analysis/poles/poles';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { Player } from './player';
import { CYCLE, partialsOf } from './steady';

/** What a circuit that sings by itself comes to. */
export interface Song {
  hz: number;
  /** Half of what it swings from end to end. */
  peakVolts: number;
  /** One period, evenly spaced, begun where it rises through its mean. */
  cycle: Float64Array;
  /** Peak volts of its harmonics. */
  partials: Float64Array;
}

/** Steps to a period of the small oscillation. */
const STEPS = 256;
/** Periods that are looked at together. */
const LOOKED = 16;
/** Two swings that differ by less are alike. */
const ALIKE = 1e-3;
/** A knock on its source that it begins from, volts. */
const KNOCK = 1e-3;
const MOST_PERIODS = 6000;
const PARTIALS = 12;

/**
 * The oscillation that an unstable pair of poles grows into: the bent circuit over time, from a knock,
 * until two stretches look alike.
 *
 * @returns undefined for a circuit that does not sing
 * @throws ReedError `convergence` where it grows into nothing that repeats
 */
export function songOf(circuit: Circuit, probe: string, source: string): Song | undefined {
  const growing = polesOf(new AcAnalysis(circuit)).filter((p) => p.im !== 0 && growth(p) > 0);
  if (growing.length === 0) return undefined;
  const first = growing.reduce((a, b) => (b.re > a.re ? b : a));
  const period = (2 * Math.PI) / Math.abs(first.im);
  const seconds = period / STEPS;
  const player = new Player(circuit, { source, probe, seconds });
  const input = new Float64Array(LOOKED * STEPS);
  const volts = new Float64Array(LOOKED * STEPS);
  let before: Song | undefined;
  for (let periods = 0; periods < MOST_PERIODS && player.lost === 0; periods += LOOKED) {
    input.fill(periods === 0 ? KNOCK : 0, 0, STEPS / 4);
    player.play(input, volts);
    const song = songIn(volts, seconds);
    // As long as it still grows evenly it is small everywhere.
    const full = song && before && Math.abs(song.peakVolts / before.peakVolts - 1) < ALIKE;
    if (full) return song;
    before = song;
  }
  throw new ReedError(
    'convergence',
    `It sings, at first at ${(1 / period).toPrecision(3)} Hz, but in ${MOST_PERIODS} periods it comes to nothing that repeats: turn it up a little more.`,
  );
}

/** Between the first and the last place where a course rises through its mean. */
function songIn(volts: Float64Array, seconds: number): Song | undefined {
  const [low, high] = volts.reduce(
    ([a, b], v) => [Math.min(a, v), Math.max(b, v)],
    [Infinity, -Infinity],
  );
  const mean = (low + high) / 2;
  const rises: number[] = [];
  for (let k = 1; k < volts.length; k++)
    if (volts[k - 1] < mean && volts[k] >= mean)
      rises.push(k - 1 + (mean - volts[k - 1]) / (volts[k] - volts[k - 1]));
  if (rises.length < 3) return undefined;
  const length = (rises[rises.length - 1] - rises[0]) / (rises.length - 1);
  const begins = rises[rises.length - 2];
  const at = (place: number) => {
    const k = Math.min(volts.length - 2, Math.floor(place));
    return volts[k] + (place - k) * (volts[k + 1] - volts[k]);
  };
  const cycle = Float64Array.from({ length: CYCLE + 1 }, (_, k) =>
    at(begins + (k * length) / CYCLE),
  );
  return {
    hz: 1 / (length * seconds),
    peakVolts: (high - low) / 2,
    cycle,
    partials: partialsOf(cycle, PARTIALS).amplitude,
  };
}
