import type { SlopedCurve } from './prediction';

/** How misfits count: what they cost together, and what a step towards less of it is made from. */
export interface Belief {
  cost(misfit: Float64Array): number;
  /** Misfits and slopes, each point by how far it is believed. */
  weighed(curve: SlopedCurve): Pick<SlopedCurve, 'values' | 'columns'>;
}

/** Every point as far as its noise says. */
export const PLAIN: Belief = {
  cost: squares,
  weighed: (curve) => curve,
};

/**
 * Points that are far off count less and less, by Cauchy's law (P. J. Huber, "Robust Statistics", 1981,
 * section 7.8: weights found again at each step): where a curve has a null or a sharp peak, a single
 * point would outweigh all others and lead a search astray. The unknown level is that of most points.
 *
 * @param gains by take of unknown level: what a decibel more does to each point
 * @param believed in units of the noise
 */
export function doubting(gains: readonly Float64Array[], believed: number): Belief {
  const centred = (misfit: Float64Array): Float64Array => {
    const off = misfit.slice();
    for (const gain of gains) {
      const levels: number[] = [];
      for (let k = 0; k < misfit.length; k++) if (gain[k] > 0) levels.push(misfit[k] / gain[k]);
      levels.sort((a, b) => a - b);
      const middle = levels[levels.length >> 1];
      for (let k = 0; k < off.length; k++) off[k] -= middle * gain[k];
    }
    return off;
  };
  return {
    cost(misfit) {
      let sum = 0;
      for (const v of centred(misfit)) sum += believed ** 2 * Math.log1p((v / believed) ** 2);
      return sum;
    },
    weighed({ values, columns }) {
      const off = centred(values);
      const roots = off.map((v) => 1 / Math.sqrt(1 + (v / believed) ** 2));
      const levels = gains.map((gain) => gain.map((v, k) => v * roots[k]));
      const weighed = (column: Float64Array) => {
        const own = column.map((v, k) => v * roots[k]);
        // No two takes have a point in common: each level is taken out by itself.
        for (const level of levels) {
          const along = dot(own, level) / dot(level, level);
          for (let k = 0; k < own.length; k++) own[k] -= along * level[k];
        }
        return own;
      };
      return { values: weighed(off), columns: columns.map(weighed) };
    },
  };
}

export function squares(values: Float64Array): number {
  let sum = 0;
  for (const v of values) sum += v * v;
  return sum;
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k] * b[k];
  return sum;
}
