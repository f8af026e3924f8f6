import { withMiddles, type Sampled } from './halve';

/** A real curve over frequency, asked for many places at once. */
export type Curve = (frequenciesHz: Float64Array) => Float64Array;

export interface Extreme {
  hz: number;
  value: number;
}

/** Places asked at once while closing in. */
const AT_ONCE = 7;
/** The bracket shrinks fourfold a round. */
const MOST_ROUNDS = 24;

/**
 * The highest value of a curve between two frequencies (in either order) that enclose one: the
 * bracket is divided until the curve bends by less than `fine` over it, and the last step is a
 * parabola's.
 */
export function closeIn(curve: Curve, fromHz: number, toHz: number, fine = 1e-7): Extreme {
  let [a, b] = [Math.log(Math.min(fromHz, toHz)), Math.log(Math.max(fromHz, toHz))];
  let best: Extreme = { hz: NaN, value: -Infinity };
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const step = (b - a) / (AT_ONCE + 1);
    const x = Float64Array.from({ length: AT_ONCE }, (_, k) => Math.exp(a + (k + 1) * step));
    const y = curve(x);
    let top = 0;
    for (let k = 1; k < AT_ONCE; k++) if (y[k] > y[top]) top = k;
    if (y[top] > best.value) best = { hz: x[top], value: y[top] };
    if (top > 0 && top < AT_ONCE - 1) {
      const [left, middle, right] = [y[top - 1], y[top], y[top + 1]];
      if (middle - Math.min(left, right) < fine) {
        const bend = left - 2 * middle + right;
        if (bend < 0) {
          const hz = x[top] * Math.exp((step * (left - right)) / (2 * bend));
          const [value] = curve(Float64Array.of(hz));
          if (value >= best.value) best = { hz, value };
        }
        return best;
      }
    }
    [a, b] = [a + top * step, a + (top + 2) * step];
    if (b - a < 1e-12) break;
  }
  return best;
}

/** A point of a grid that stands over its neighbours, and how high a smooth curve can reach beside it. */
export interface LocalSummit {
  at: number;
  /** The summit lies between these, its neighbours; at an end of the grid, the end and its neighbour. */
  between: readonly [number, number];
  reach: number;
}

/**
 * Local summits of a curve known on a grid. Between two points a curve that bends one way stays
 * under the lines drawn on from the gaps beside; gaps need not be alike.
 */
export function localSummits(grid: Float64Array, values: ArrayLike<number>): LocalSummit[] {
  const found: LocalSummit[] = [];
  const last = grid.length - 1;
  const gap = (k: number) => Math.abs(Math.log(grid[k + 1] / grid[k]));
  const slope = (k: number) => (values[k + 1] - values[k]) / gap(k);
  for (let k = 1; k < last; k++) {
    const [left, right] = [values[k] - values[k - 1], values[k] - values[k + 1]];
    if (!(left >= 0 && right >= 0) || left + right === 0) continue;
    const on = Math.max(slope(k - 1) * gap(k), -slope(k) * gap(k - 1));
    const reach = values[k] + Math.max(left, right, on);
    found.push({ at: k, between: [grid[k - 1], grid[k + 1]], reach });
  }
  // An end may hide a summit behind it, where the curve already flattens towards it.
  if (last >= 2) {
    const atStart = values[1] - slope(1) * gap(0);
    if (values[0] >= values[1] && atStart > values[0])
      found.push({ at: 0, between: [grid[0], grid[1]], reach: atStart });
    const atEnd = values[last - 1] + slope(last - 2) * gap(last - 1);
    if (values[last] >= values[last - 1] && atEnd > values[last])
      found.push({ at: last, between: [grid[last - 1], grid[last]], reach: atEnd });
  }
  return found;
}

interface Search {
  /** Of the curve on the grid, where they are known already. */
  values?: Float64Array;
  fine?: number;
  /** Summits that cannot stand above this are of no interest, and are not refined. */
  over?: number;
}

/**
 * The highest value of a curve over a grid's span, its ends included: found among the grid's points
 * and refined wherever a local summit could stand higher than the best of them.
 *
 * @param grid rising frequencies, close enough to show every summit
 */
export function highestOf(
  curve: Curve,
  grid: Float64Array,
  { values = curve(grid), fine = 1e-7, over = -Infinity }: Search = {},
): Extreme {
  const best = values.reduce((top, y, k) => (y > values[top] ? k : top), 0);
  let found: Extreme = { hz: grid[best], value: values[best] };
  const summits = localSummits(grid, values).sort((p, q) => q.reach - p.reach);
  for (const { between, reach } of summits) {
    if (reach <= Math.max(found.value, over)) break;
    const summit = closeIn(curve, ...between, fine);
    if (summit.value > found.value) found = summit;
  }
  return found;
}

/**
 * The highest value of a curve that is known on a grid only: of its points, and of the tops of the
 * parabolas, in log frequency, through each local summit and its neighbours.
 */
export function highestOnGrid(grid: Float64Array, values: Float64Array): number {
  let most = values.reduce((a, b) => Math.max(a, b), -Infinity);
  for (const { at } of localSummits(grid, values)) {
    if (at === 0 || at + 1 >= grid.length) continue;
    const [a, b] = [Math.log(grid[at] / grid[at - 1]), Math.log(grid[at + 1] / grid[at])];
    const [p, q] = [values[at - 1] - values[at], values[at + 1] - values[at]];
    // y = values[at] + slope u + bend u^2, with u from the summit's own point.
    const bend = (p * b + q * a) / (a * b * (a + b));
    const slope = (q * a * a - p * b * b) / (a * b * (a + b));
    if (bend < 0) most = Math.max(most, values[at] - (slope * slope) / (4 * bend));
  }
  return most;
}

/** A summit that could stand so little higher than its own point is not looked at again. */
const DECIDED = 1e-6;

/**
 * Whether a curve comes above zero anywhere over a grid's span: gaps beside summits that could are
 * halved, all of them at once, until none could any more or one does.
 *
 * @returns the highest value found; its sign is certain, its size only where it is positive or near zero
 */
export function risesAboveZero(curve: Curve, grid: Float64Array, values: Float64Array): number {
  let sampled: Sampled = { frequenciesHz: grid, columns: [values] };
  for (let round = 0; ; round++) {
    const [y] = sampled.columns;
    let most = -Infinity;
    for (let k = 0; k < y.length; k++) if (y[k] > most) most = y[k];
    if (most > 0 || round === MOST_ROUNDS) return most;
    const gaps = new Set<number>();
    for (const { at, reach } of localSummits(sampled.frequenciesHz, y)) {
      if (!(reach > 0) || reach - y[at] < DECIDED) continue;
      if (at > 0) gaps.add(at - 1);
      if (at + 1 < y.length) gaps.add(at);
    }
    if (gaps.size === 0) return most;
    sampled = withMiddles(sampled, [...gaps], (hz) => [curve(hz)]);
  }
}

/** The lowest value of a curve over a grid's span. */
export function lowestOf(curve: Curve, grid: Float64Array, { values, fine }: Search = {}): Extreme {
  const turned: Curve = (hz) => curve(hz).map((y) => -y);
  const { hz, value } = highestOf(turned, grid, { values: values?.map((y) => -y), fine });
  return { hz, value: -value };
}
