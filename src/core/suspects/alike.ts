import { dot, squares } from './belief';
import type { Prediction } from './prediction';
import { FARTHEST } from './view-prediction';

/**
 * Curves that lie closer than this, in units of the noise, are not told apart by any luck; and closer
 * than this part of what they do, so that a part that does next to nothing is not like every other.
 */
const ALIKE = 1;
const ALIKE_PART = 0.03;
/** Whose first steps part by more than this (a cosine) do not lead to the same place. */
const PARALLEL = 0.97;
const MOST_STEPS = 8;

/**
 * The values that do what one value does, by other amounts: those of which no take like this one, and
 * were all the other parts exact, would tell them apart.
 *
 * @param culprit its place among the movables
 * @param x how far it is off, as a logarithm
 * @returns places among the movables, each with how far it would be off
 */
export function alikeTo(
  prediction: Prediction,
  culprit: number,
  x: number,
): { movable: number; x: number }[] {
  const count = prediction.movables.length;
  const at = (place: number, value: number) => {
    const all = new Float64Array(count);
    all[place] = value;
    return all;
  };
  const wanted = prediction.misfit(at(culprit, x));
  const exact = prediction.sloped(new Float64Array(count));
  if (!wanted || !exact) return [];
  const done = squares(wanted.map((v, k) => v - exact.values[k]));
  const own = exact.columns[culprit];
  const limit = Math.min(ALIKE, ALIKE_PART ** 2 * done);
  return prediction.movables.flatMap(({ suspect }, i) => {
    if (i === culprit || !suspect) return [];
    const other = exact.columns[i];
    const along = dot(own, other);
    if (!(Math.abs(along) > PARALLEL * Math.sqrt(squares(own) * squares(other)))) return [];
    const [same, scaled] = [Math.sign(along) * x, (along / squares(other)) * x];
    const found = [same, scaled]
      .map((start) => closest(prediction, wanted, (v) => at(i, v), i, start, limit))
      .sort((a, b) => a.apart - b.apart)[0];
    return found.apart < limit ? [{ movable: i, x: found.x }] : [];
  });
}

/** The value of one part by which a curve comes closest to another. */
function closest(
  prediction: Prediction,
  wanted: Float64Array,
  at: (value: number) => Float64Array,
  place: number,
  start: number,
  limit: number,
): { x: number; apart: number } {
  let best = { x: start, apart: Infinity };
  let value = start;
  for (let step = 0; step < MOST_STEPS; step++) {
    const now = prediction.sloped(at(value));
    if (!now) break;
    const off = now.values.map((v, k) => v - wanted[k]);
    const apart = squares(off);
    if (apart < best.apart) best = { x: value, apart };
    const column = now.columns[place];
    const slope = dot(column, column);
    // Farther from it than the first step can mend: another part.
    if (!(slope > 0) || apart < limit / 100) break;
    const next = value + dot(column, off) / slope;
    value = Math.min(FARTHEST, Math.max(-FARTHEST, next));
  }
  return best;
}
