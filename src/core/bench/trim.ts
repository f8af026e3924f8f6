import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import {
  isValued,
  valueOfPart,
  withPart,
  withPartValue,
  type Valued,
} from '@/core/mistakes/mistake';
import { nearestPreferred, type SeriesName } from '@/core/quantity/series';
import { findPeak } from '@/core/numeric/root';
import { levelsAt } from '@/core/response/levels-at';

/** Another part changed so that a board does what was predicted though one part of it is off. */
export interface Trim {
  part: string;
  /** What stands there now, and what should. */
  now: number;
  value: number;
  /** How far the level is from the prediction at worst, dB, before and after. */
  beforeDb: number;
  afterDb: number;
}

/** Values are looked for within this factor either way. */
const WITHIN = 3;
/** Places that are tried on the way, and how closely the best of them is looked about, as a logarithm. */
const PLACES = 13;
const CLOSE = 1e-4;
/** Levels so far under the highest do not count. */
const DEEP_DB = 40;
/** A trim that leaves more than this part of the difference is none. */
const WORTH = 0.5;
const MOST = 2;

export interface TrimRequest {
  /** As it should be. */
  circuit: Circuit;
  /** As it is: some parts off. */
  real: Circuit;
  probe: string;
  frequenciesHz: Float64Array;
  /** Parts that may be changed. */
  movable: readonly string[];
  /** Of values that can be bought. */
  series: SeriesName;
}

/**
 * Resistors whose change brings a board nearest to its prediction, best first; values are of a series.
 */
export function trims(request: TrimRequest): Trim[] {
  const { circuit, real, probe, frequenciesHz, movable, series } = request;
  const wanted = levelsAt(circuit, probe, frequenciesHz);
  const highest = Math.max(...wanted);
  const counted = Array.from(wanted.keys()).filter((k) => wanted[k] > highest - DEEP_DB);
  /** The squares of what is off, and the worst of it. */
  const offOf = (of: Circuit): { squares: number; worst: number } => {
    try {
      const off = levelsAt(of, probe, frequenciesHz);
      let [squares, worst] = [0, 0];
      for (const k of counted) {
        squares += (off[k] - wanted[k]) ** 2;
        worst = Math.max(worst, Math.abs(off[k] - wanted[k]));
      }
      return { squares, worst };
    } catch (error) {
      if (error instanceof ReedError) return { squares: Infinity, worst: Infinity };
      throw error;
    }
  };
  const before = offOf(real);
  return real.parts
    .filter(isValued)
    .filter(({ id, kind }) => kind === 'resistor' && movable.includes(id))
    .flatMap((part): Trim[] => {
      const withValue = (value: number) => withPart(real, withPartValue(part, value));
      const exact = bestValue(part, (value) => offOf(withValue(value)).squares);
      const value = nearestPreferred(exact, series);
      const after = offOf(withValue(value));
      if (value === valueOfPart(part) || !(after.worst < WORTH * before.worst)) return [];
      const now = valueOfPart(part);
      return [{ part: part.id, now, value, beforeDb: before.worst, afterDb: after.worst }];
    })
    .sort((a, b) => a.afterDb - b.afterDb)
    .slice(0, MOST);
}

/** The value that costs least: the best of some places over a logarithm, then searched about it. */
function bestValue(part: Valued, cost: (value: number) => number): number {
  const from = Math.log(valueOfPart(part) / WITHIN);
  const step = (2 * Math.log(WITHIN)) / (PLACES - 1);
  const places = Array.from({ length: PLACES }, (_, k) => from + k * step);
  const costs = places.map((u) => cost(Math.exp(u)));
  const best = places[costs.indexOf(Math.min(...costs))];
  return Math.exp(findPeak((u) => -cost(Math.exp(u)), best - step, best + step, CLOSE));
}
