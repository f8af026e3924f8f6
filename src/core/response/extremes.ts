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
 * The highest value of a curve between two frequencies that enclose one: the bracket is divided
 * until the curve bends by less than `fine` over it, and the last step is a parabola's.
 */
export function closeIn(curve: Curve, fromHz: number, toHz: number, fine = 1e-7): Extreme {
  let [a, b] = [Math.log(fromHz), Math.log(toHz)];
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

/**
 * The highest value of a curve over a grid's span, its ends included: found among the grid's points
 * and refined wherever a local summit could stand higher than the best of them.
 *
 * @param grid rising frequencies, close enough to show every summit
 * @param values of the curve on the grid, where they are known already
 */
export function highestOf(
  curve: Curve,
  grid: Float64Array,
  { values = curve(grid), fine = 1e-7 }: { values?: Float64Array; fine?: number } = {},
): Extreme {
  const last = grid.length - 1;
  let best = 0;
  const summits: { at: number; reach: number }[] = [];
  for (let k = 0; k <= last; k++) {
    if (values[k] > values[best]) best = k;
    if (k === 0 || k === last || values[k] < values[k - 1] || values[k] < values[k + 1]) continue;
    // A smooth summit stands no higher over its points than they fall to their neighbours.
    const drop = Math.max(values[k] - values[k - 1], values[k] - values[k + 1]);
    if (drop > 0) summits.push({ at: k, reach: values[k] + drop });
  }
  let found: Extreme = { hz: grid[best], value: values[best] };
  for (const { at, reach } of summits.sort((p, q) => q.reach - p.reach)) {
    if (reach <= found.value) break;
    const summit = closeIn(curve, grid[at - 1], grid[at + 1], fine);
    if (summit.value > found.value) found = summit;
  }
  return found;
}

/** The lowest value of a curve over a grid's span. */
export function lowestOf(
  curve: Curve,
  grid: Float64Array,
  { values, fine }: { values?: Float64Array; fine?: number } = {},
): Extreme {
  const turned: Curve = (hz) => curve(hz).map((y) => -y);
  const { hz, value } = highestOf(turned, grid, { values: values?.map((y) => -y), fine });
  return { hz, value: -value };
}
