import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import { highestOf, lowestOf, type Curve } from '@/core/response/extremes';
import type { ExactDesign } from './exact';

/** The part that moves the pass band most: dB for one per cent. */
export interface WorstPart {
  part: string;
  dbPerPercent: number;
}

export interface Calm {
  sensitivity: WorstPart;
  /** Longest less shortest group delay over the pass band, seconds. */
  delayVariationSeconds: number;
}

/** What the adjoint network tells of the pass band: the most that any part moves it, and its delay. */
export function calmOf({ analysis }: ExactDesign, grids: readonly Float64Array[]): Calm {
  let worst: WorstPart = { part: '', dbPerPercent: 0 };
  let [longest, shortest] = [-Infinity, Infinity];
  const adjoint = new Adjoint(analysis, 'out');
  const bearing = adjoint.bearing();
  const delay: Curve = (hz) => adjoint.slopes(hz).groupDelaySeconds;
  for (const grid of grids) {
    // The part that moves most on the grid comes first: few of the others can then be worse.
    const byMost = adjoint
      .parts(grid)
      .map(({ part, levelDb }, i) => {
        const values = levelDb.map((db) => Math.abs(db) / 100);
        return { part, i: bearing[i], values, most: values.reduce((a, b) => Math.max(a, b)) };
      })
      .sort((a, b) => b.most - a.most);
    for (const { part, i, values } of byMost) {
      const curve: Curve = (hz) =>
        adjoint.parts(hz, [i])[0].levelDb.map((db) => Math.abs(db) / 100);
      const dbPerPercent = summitOver(curve, grid, values, worst.dbPerPercent);
      if (dbPerPercent > worst.dbPerPercent) worst = { part, dbPerPercent };
    }
    const values = delay(grid);
    const fine = FINE * Math.max(...values.map(Math.abs));
    longest = Math.max(longest, highestOf(delay, grid, { values, fine }).value);
    shortest = Math.min(shortest, lowestOf(delay, grid, { values, fine }).value);
  }
  return { sensitivity: worst, delayVariationSeconds: longest - shortest };
}

/** Part of a figure to which its summit is divided; the parabola at the end is far closer. */
const FINE = 1e-3;
/** A summit that would be higher by less than this part is left alone. */
const CLOSE_ENOUGH = 1e-3;

/** The highest of a curve, refined only where it could be higher than what is known already. */
function summitOver(curve: Curve, grid: Float64Array, values: Float64Array, known: number): number {
  const most = values.reduce((a, b) => Math.max(a, b), known);
  const search = { values, fine: most * FINE, over: most * (1 + CLOSE_ENOUGH) };
  return Math.max(most, highestOf(curve, grid, search).value);
}
