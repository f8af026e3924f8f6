import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { hessianOf, dot, squares } from './likely';
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
 * @returns the best places, as logarithms, best first
 */
export function placesOf(
  prediction: Prediction,
  nominal: SlopedCurve,
  usual: ArrayLike<number>,
  movable: number,
  most = 2,
): number[] {
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
    .map(({ at }) => at);
}

/** What ordinary deviations can do to a curve, in first order about a place. */
export class Ordinary {
  private readonly columns: readonly Float64Array[];
  private readonly factors: CholeskyDecomposition;

  constructor(about: SlopedCurve, sds: ArrayLike<number>) {
    this.columns = about.columns.map((column, i) => column.map((v) => v * sds[i]));
    this.factors = new CholeskyDecomposition(hessianOf(about, sds));
  }

  /** What of a misfit they and noise do not make likely. */
  leaves(misfit: Float64Array): number {
    const { columns, factors } = this;
    if (columns.length === 0 || !factors.isPositiveDefinite()) return squares(misfit);
    const pulls = Matrix.columnVector(columns.map((column) => dot(column, misfit)));
    return squares(misfit) - pulls.dot(factors.solve(pulls));
  }
}
