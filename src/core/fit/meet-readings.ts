import type { WantedReadings } from './problem';
import { dampedStep } from './solve-exact';

const MOST_STEPS = 40;
/** A change of a value's logarithm by which its slopes are found. */
const NUDGE = 1e-4;
/** One step moves no value further than this, by its logarithm. */
const FURTHEST = 0.5;
/** What is left of the misses, each a part of its room, when it is enough. */
const CLOSE = 1e-4;
const MOST_DAMPING = 1e4;

/**
 * Values that bring readings to the middle of what is wanted of them, as near to given ones as will
 * do: damped Gauss-Newton steps in the logarithms of the values (D. W. Marquardt, "An Algorithm for
 * Least-Squares Estimation of Nonlinear Parameters", J. SIAM 11, 1963), slopes from small changes.
 *
 * @returns the values that miss least; the given ones where their readings cannot be read
 */
export function valuesMeeting(readings: WantedReadings, start: readonly number[]): number[] {
  const off = (values: readonly number[]) => readings.off(readings.read(values));
  let values = [...start];
  let here = off(values);
  let size = squares(here);
  if (!Number.isFinite(size)) return values;
  let damping = 1e-2;
  for (let step = 0; step < MOST_STEPS && Math.sqrt(size) > CLOSE; step++) {
    const slopes = values.map((_, i) => {
      const there = off(values.map((v, k) => (k === i ? v * Math.exp(NUDGE) : v)));
      return there.map((x, r) => (x - here[r]) / NUDGE);
    });
    if (slopes.flat().some((x) => !Number.isFinite(x))) break;
    let moved = false;
    while (!moved && damping < MOST_DAMPING) {
      // The damping keeps what no reading settles where it was.
      const by = dampedStep(slopes, here, damping);
      const next = values.map(
        (v, i) => v * Math.exp(Math.min(FURTHEST, Math.max(-FURTHEST, by[i]))),
      );
      const there = off(next);
      const left = squares(there);
      if (left < size) {
        [values, here, size] = [next, there, left];
        damping = Math.max(1e-9, damping / 10);
        moved = true;
      } else damping *= 10;
    }
    if (!moved) break;
  }
  return values;
}

const squares = (x: readonly number[]): number => x.reduce((sum, y) => sum + y * y, 0);
