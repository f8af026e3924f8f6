import { seriesOfCycle } from '@/core/analysis/harmonics/harmonics';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { Player } from './player';

/** Waves that come round, as they are drawn: a square that begins high, a saw that falls from its jump. */
export type SteadyWave = 'sine' | 'square' | 'saw';

/** What goes in. */
interface Driven {
  wave: SteadyWave;
  /** Peak volts. */
  volts: number;
}

/** A cycle as it goes on, of the probe and of the nets beside it. */
export interface Cycle {
  volts: Float64Array;
  also: Float64Array[];
  repeats: boolean;
}

/** Points of a cycle that is drawn or taken apart. */
export const CYCLE = 512;
/** Steps to each of them. */
const STEPS = 2;
/** A cycle that differs from the one before by less, as a part of its swing, has settled. */
const SETTLED = 1e-4;
/** What still creeps so little may be shown all the same, after the most cycles that are run. */
const CREEPS = 1e-2;
const LEAST_CYCLES = 8;
const MOST_CYCLES = 400;
/** Less than this is no swing, volts. */
const STILL = 1e-9;

/** The wave at a place of its cycle, 0 to 1; its jumps take one step. */
function waveAt(wave: SteadyWave, place: number): number {
  const p = place - Math.floor(place);
  switch (wave) {
    case 'sine':
      return Math.sin(2 * Math.PI * p);
    case 'square':
      return p === 0 || p === 0.5 ? 0 : p < 0.5 ? 1 : -1;
    case 'saw':
      return p === 0 ? 0 : 1 - 2 * p;
  }
}

/**
 * A bent circuit that waves go through until it repeats itself, by the engine’s compiled steps
 * (`Player`). It may be asked again with another level: it goes on from where it is.
 */
export class SteadyRun {
  private readonly player: Player;

  /**
   * @param also nets that are looked at beside the probe
   * @throws ReedError as `Player`
   */
  constructor(
    circuit: Circuit,
    source: string,
    probe: string,
    private readonly hz: number,
    private readonly also: readonly string[] = [],
  ) {
    if (!(hz > 0)) throw new ReedError('range', 'A wave needs a frequency above 0 Hz.');
    this.player = new Player(circuit, { source, probe, also, seconds: 1 / (hz * CYCLE * STEPS) });
  }

  /**
   * One cycle, `CYCLE` points and the first of the next; the last of many where it does not repeat: it
   * sings by itself, or settles far more slowly. Nets beside the probe go through the very same one.
   *
   * @throws ReedError `convergence` where no state was found that it could go on from
   */
  cycle({ wave, volts }: Driven): Cycle {
    const { player } = this;
    const count = CYCLE * STEPS;
    const input = Float64Array.from(
      { length: count },
      (_, k) => volts * waveAt(wave, (k + 1) / count),
    );
    let before = [new Float64Array(count), ...this.also.map(() => new Float64Array(count))];
    let now = before.map((steps) => steps.slice());
    const lost = player.lost;
    for (let n = 1; n <= MOST_CYCLES && player.lost === lost; n++) {
      [before, now] = [now, before];
      player.play(input, ...now);
      if (n < LEAST_CYCLES) continue;
      const apart = Math.max(...now.map((steps, i) => differing(before[i], steps)));
      if (apart >= SETTLED && n < MOST_CYCLES) continue;
      const [own, ...also] = now.map(smoothed);
      return { volts: own, also, repeats: apart < CREEPS };
    }
    throw new ReedError(
      'convergence',
      `Driven with ${volts.toPrecision(3)} V at ${this.hz.toPrecision(3)} Hz the circuit comes to a place from which no step leads on: give the source less.`,
    );
  }
}

/** How far two cycles differ, as a part of what the second swings. */
function differing(a: Float64Array, b: Float64Array): number {
  let [low, high, apart] = [Infinity, -Infinity, 0];
  b.forEach((v, k) => {
    low = Math.min(low, v);
    high = Math.max(high, v);
    apart = Math.max(apart, Math.abs(v - a[k]));
  });
  return apart / (high - low + STILL);
}

/**
 * Every so many steps one point, each with half of both neighbours: after a jump the trapezoidal rule
 * goes up and down from step to step about the course of what is faster than its steps.
 */
function smoothed(steps: Float64Array): Float64Array {
  const n = steps.length;
  // The step of index k ends at k + 1: the cycle begins with the last.
  const at = (k: number) => steps[(k - 1 + 2 * n) % n];
  return Float64Array.from(
    { length: CYCLE + 1 },
    (_, k) => (at(STEPS * k - 1) + 2 * at(STEPS * k) + at(STEPS * k + 1)) / 4,
  );
}

/** Harmonics of a cycle: peak volts, and radians against a sine that begins with it. */
export function partialsOf(
  cycle: Float64Array,
  count: number,
): { amplitude: Float64Array; phase: Float64Array; thd: number } {
  const { volts, degrees, thd } = seriesOfCycle(cycle, 1, count);
  return {
    amplitude: Float64Array.from(volts),
    phase: Float64Array.from(degrees, (d) => (d * Math.PI) / 180),
    thd,
  };
}
