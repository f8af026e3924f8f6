import { findPeak, findZero } from '@/core/numeric/root';

/** A function along a stretch, which has no value (NaN) at some places. */
export type Along = (at: number) => number;

/** A place where it is nought. */
export type Crossing = number;

/** Jumps are closed in on so often before they are taken for what they are. */
const MOST_SPLITS = 40;
/** An extreme that stands out by less than this part of itself is rounding. */
const LEAST_BEND = 1e-5;

interface Options {
  /** Places, rising, at which it is looked at first. */
  grid: Float64Array;
  /** How close to nought is nought. */
  close: number;
  /** How finely a place is told. */
  fine: number;
}

/**
 * All places where a function of one number is nought, as far as a grid shows them: where it changes
 * sign without a jump, where it touches, and beside the ends of stretches where it has no value.
 *
 * @returns rising
 */
export function rootsAlong(f: Along, { grid, close, fine }: Options): Crossing[] {
  const values = grid.map(f);
  const found: Crossing[] = [];
  const put = (at: number) => {
    if (Math.abs(f(at)) <= close && !found.some((x) => Math.abs(x - at) <= 4 * fine))
      found.push(at);
  };
  const between = (a: number, ya: number, b: number, yb: number) => {
    if (ya === 0) put(a);
    if (yb === 0) put(b);
    if (ya * yb < 0) put(crossing(f, a, b, fine));
  };
  for (let k = 1; k < grid.length; k++) {
    const [a, b, ya, yb] = [grid[k - 1], grid[k], values[k - 1], values[k]];
    if (Number.isNaN(ya) !== Number.isNaN(yb)) {
      const [end, y] = endOfValues(f, a, b, Number.isNaN(yb));
      if (Number.isNaN(yb)) between(a, ya, end, y);
      else between(end, y, b, yb);
    } else if (!Number.isNaN(ya)) between(a, ya, b, yb);
  }
  for (let k = 1; k + 1 < grid.length; k++) touching(f, grid, values, k, fine, between, put);
  return found.sort((a, b) => a - b);
}

/** Where it changes sign; a jump is closed in on and refused by whoever asks for its value. */
function crossing(f: Along, a: number, b: number, fine: number): number {
  try {
    // Inside it may have no value: there a plain number stands in, and the check afterwards refuses.
    return findZero((x) => f(x) || 0, a, b, fine / 2);
  } catch {
    return a;
  }
}

/** The last place that has a value, going from one that has into those that have none. */
function endOfValues(f: Along, a: number, b: number, upwards: boolean): [number, number] {
  let [good, bad] = upwards ? [a, b] : [b, a];
  let y = f(good);
  for (let i = 0; i < MOST_SPLITS; i++) {
    const middle = (good + bad) / 2;
    const here = f(middle);
    if (Number.isNaN(here)) bad = middle;
    else [good, y] = [middle, here];
  }
  return [good, y];
}

/** An extreme between two neighbours that comes near to nought without having crossed it. */
function touching(
  f: Along,
  grid: Float64Array,
  values: Float64Array,
  k: number,
  fine: number,
  between: (a: number, ya: number, b: number, yb: number) => void,
  put: (at: number) => void,
): void {
  const [before, here, after] = [values[k - 1], values[k], values[k + 1]];
  const side = Math.sign(here);
  if (!(before * here > 0 && after * here > 0)) return;
  if (Math.abs(here) > Math.abs(before) || Math.abs(here) > Math.abs(after)) return;
  const bend = Math.abs(before) + Math.abs(after) - 2 * Math.abs(here);
  if (bend < LEAST_BEND * Math.abs(here)) return;
  const at = findPeak((x) => -side * f(x), grid[k - 1], grid[k + 1], fine);
  const y = f(at);
  if (y * side < 0) {
    between(grid[k - 1], before, at, y);
    between(at, y, grid[k + 1], after);
  } else put(at);
}
