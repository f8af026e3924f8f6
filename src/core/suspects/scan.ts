import { Cholesky } from '@/core/numeric/cholesky';
import { dot } from './belief';
import type { Prediction, SlopedCurve } from './prediction';

/** Logarithms of the factors that are looked at first, either way. */
const SIZES = [0.15, 0.35, 0.7, 1.15, 1.7, 2.4, 3.4, 4.6, 6.9];
const GRID = [...SIZES.map((s) => -s).reverse(), 0, ...SIZES];
/** A part that ordinary deviations may not take up. */
const HELD = 1e-6;

/**
 * Where one value could stand, from values far apart: misfits in which all that the others’ ordinary
 * deviations can do (in first order about the nominal circuit) is taken out.
 *
 * @returns the best places, as logarithms, best first, each with what is then not explained
 */
export function placesOf(
  prediction: Prediction,
  nominal: SlopedCurve,
  usual: ArrayLike<number>,
  movable: number,
  most = 2,
): { at: number; left: number }[] {
  const sds = Array.from(usual, (sd, i) => (i === movable ? HELD : sd));
  const ordinary = new Ordinary(nominal, sds);
  const x = new Float64Array(sds.length);
  const sizes = GRID.map((at) => {
    x[movable] = at;
    const misfit = prediction.misfit(x);
    return misfit ? ordinary.leaves(misfit) + at * at : Infinity;
  });
  return sizes
    .map((size, i) => ({ size, at: GRID[i], i }))
    .filter(
      ({ size, i }) =>
        Number.isFinite(size) &&
        size <= (sizes[i - 1] ?? Infinity) &&
        size <= (sizes[i + 1] ?? Infinity),
    )
    .sort((a, b) => a.size - b.size)
    .slice(0, most)
    .map(({ at, size }) => ({ at, left: size }));
}

/** Points that are farther off than these are believed less and less, in units of the noise. */
const BELIEVED = [60, 10];

/** dB that the level may be off, as good as any. */
const ANY_GAIN = 300;

/** What ordinary deviations can do to a curve, in first order about a place. */
export class Ordinary {
  private readonly columns: readonly Float64Array[];

  constructor(about: SlopedCurve, sds: ArrayLike<number>) {
    this.columns = [
      ...about.columns.map((column, i) => column.map((v) => v * sds[i])),
      // A mean that was taken out of all points is put right where some are not believed.
      ...about.gains.map((gain) => gain.map((v) => v * ANY_GAIN)),
    ];
  }

  /**
   * What of a misfit they and noise do not make likely. Where a curve has a null or a sharp peak no
   * first order holds, and a single point would outweigh all others: each counts by Cauchy’s law
   * (P. J. Huber, “Robust Statistics”, 1981, section 7.8: weights found again and again).
   */
  leaves(misfit: Float64Array): number {
    let off = misfit;
    let cost = 0;
    for (const believed of BELIEVED) {
      const weights = off.map((v) => 1 / (1 + (v / believed) ** 2));
      const pull = this.pulled(misfit, weights);
      off = misfit.slice();
      cost = 0;
      this.columns.forEach((column, i) => {
        for (let k = 0; k < off.length; k++) off[k] -= pull[i] * column[k];
        cost += pull[i] ** 2;
      });
    }
    const last = BELIEVED[BELIEVED.length - 1];
    for (const v of off) cost += last ** 2 * Math.log1p((v / last) ** 2);
    return cost;
  }

  /** The likeliest deviations, in standard deviations, for points of such weights. */
  private pulled(misfit: Float64Array, weights: Float64Array): Float64Array {
    const { columns } = this;
    const count = columns.length;
    const hessian = new Float64Array(count * count);
    const pulls = new Float64Array(count);
    const weighed = new Float64Array(misfit.length);
    for (let i = 0; i < count; i++) {
      const column = columns[i];
      for (let k = 0; k < weighed.length; k++) weighed[k] = weights[k] * column[k];
      pulls[i] = dot(weighed, misfit);
      for (let j = 0; j <= i; j++) hessian[i * count + j] = dot(weighed, columns[j]);
      hessian[i * count + i] += 1;
    }
    return Cholesky.of(hessian, count)?.solve(pulls) ?? pulls.fill(0);
  }
}
