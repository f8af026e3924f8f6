import { solveReal } from '@/core/response/solve-real';

/** So many boards tell the shares well enough. */
const MOST_BOARDS = 4000;

/** What one reading owes to the deviations of the parts. */
export interface Shares {
  /** Parts of its variance, by place in the list of deviations; the rest is what parts do together. */
  shares: number[];
  /** What a deviation does to it: its change for the whole of the value. */
  slopes: number[];
}

/**
 * Shares of the variance of a reading, by regression on the deviations and their squares: what a part
 * does on its own, straight or bent (I. M. Sobol, "Sensitivity estimates for nonlinear mathematical
 * models", 1993: the first-order indices, of a quadratic).
 *
 * @param deviations of every board, `[board][part]`, side by side
 * @param readings of every board; boards without one are left out
 * @param count of parts
 */
export function sharesOf(
  deviations: Float64Array,
  readings: Float64Array,
  count: number,
): Shares | undefined {
  const boards = Array.from(readings.keys())
    .filter((b) => Number.isFinite(readings[b]))
    .slice(0, MOST_BOARDS);
  if (boards.length < 2 * count + 8) return undefined;
  const means = columnMeans(deviations, boards, count);
  const row = (board: number): number[] => {
    const own = Array.from({ length: count }, (_, i) => deviations[board * count + i]);
    return [
      ...own.map((d, i) => d - means.first[i]),
      ...own.map((d, i) => (d - means.first[i]) ** 2 - means.second[i]),
    ];
  };
  const mean = boards.reduce((sum, b) => sum + readings[b], 0) / boards.length;
  const size = 2 * count;
  const matrix = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  const rhs = new Array<number>(size).fill(0);
  let variance = 0;
  for (const board of boards) {
    const x = row(board);
    const y = readings[board] - mean;
    variance += y * y;
    for (let i = 0; i < size; i++) {
      rhs[i] += x[i] * y;
      for (let j = 0; j <= i; j++) matrix[i][j] += x[i] * x[j];
    }
  }
  if (!(variance > 0))
    return { shares: means.first.map(() => 0), slopes: means.first.map(() => 0) };
  for (let i = 0; i < size; i++) {
    for (let j = i + 1; j < size; j++) matrix[i][j] = matrix[j][i];
    // Deviations that never differ have nothing to tell.
    matrix[i][i] += 1e-12 * (matrix[i][i] || 1);
  }
  const found = solveReal(
    matrix.map((r) => [...r]),
    rhs,
  );
  const own = means.first.map((_, i) => {
    const [a, b] = [found[i], found[count + i]];
    const explained =
      a * a * matrix[i][i] +
      b * b * matrix[count + i][count + i] +
      2 * a * b * matrix[i][count + i];
    return Math.max(0, explained);
  });
  // Drawn deviations are never quite independent: what is explained in all is shared out by what
  // each explains.
  const all = found.reduce((sum, x, i) => sum + x * rhs[i], 0) / variance;
  const sum = own.reduce((a, b) => a + b, 0) || 1;
  const shares = own.map((x) => (x / sum) * Math.min(1, all));
  return { shares, slopes: found.slice(0, count) };
}

function columnMeans(deviations: Float64Array, boards: readonly number[], count: number) {
  const first = new Array<number>(count).fill(0);
  const second = new Array<number>(count).fill(0);
  for (const board of boards)
    for (let i = 0; i < count; i++) first[i] += deviations[board * count + i] / boards.length;
  for (const board of boards)
    for (let i = 0; i < count; i++)
      second[i] += (deviations[board * count + i] - first[i]) ** 2 / boards.length;
  return { first, second };
}
