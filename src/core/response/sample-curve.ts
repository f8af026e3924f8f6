import { closeIn, localSummits, type Curve } from './extremes';
import { withMiddles, type Sampled } from './halve';
import { explored, type Band, type Landmark } from './landmarks';

export interface SampledCurve {
  frequenciesHz: Float64Array;
  values: Float64Array;
}

interface Options {
  landmarks?: readonly Landmark[];
  maxPoints?: number;
  /** Largest deviation from a straight line between neighbours, as a part of the values there. */
  tolerance?: number;
}

const PER_DECADE = 24;
const MOST_PASSES = 9;
/** Summits and dips less marked than this part of their own size need no point of their own. */
const MARKED = 1e-3;

/**
 * Sample a real curve for drawing: close in on landmarks, halve the gaps where it bends, and put a
 * point on every summit and dip, so that what is read off the drawing is what the curve reaches.
 * Where the curve says NaN there is nothing to draw.
 */
export function sampleCurve(
  curve: Curve,
  span: Band,
  { landmarks = [], maxPoints = 480, tolerance = 4e-3 }: Options = {},
): SampledCurve {
  const start = explored(span, landmarks, PER_DECADE);
  let sampled = onlyFinite({ frequenciesHz: start, columns: [curve(start)] });
  for (let pass = 0; pass < MOST_PASSES && sampled.frequenciesHz.length < maxPoints; pass++) {
    const {
      frequenciesHz,
      columns: [values],
    } = sampled;
    const gaps = bentGaps(frequenciesHz, values, tolerance);
    if (gaps.length === 0) break;
    const chosen = gaps.slice(0, maxPoints - frequenciesHz.length);
    sampled = onlyFinite(withMiddles(sampled, chosen, (hz) => [curve(hz)]));
  }
  const {
    frequenciesHz: x,
    columns: [y],
  } = sampled;
  const turned: Curve = (hz) => curve(hz).map((v) => -v);
  const turns = [...turnsOf(curve, x, y, 1), ...turnsOf(turned, x, y, -1)];
  const points = [...Array.from(x, (hz, k) => ({ hz, value: y[k] })), ...turns].sort(
    (a, b) => a.hz - b.hz,
  );
  return {
    frequenciesHz: Float64Array.from(points, (p) => p.hz),
    values: Float64Array.from(points, (p) => p.value),
  };
}

/** Summits of a curve, or of the curve turned over, refined where that would be seen. */
function turnsOf(curve: Curve, x: Float64Array, y: Float64Array, sign: 1 | -1) {
  const values = y.map((v) => sign * v);
  return localSummits(x, values)
    .filter(({ at, reach }) => reach - values[at] > MARKED * Math.abs(values[at]))
    .map(({ at, between }) => {
      const fine = 1e-5 * Math.abs(values[at]);
      const { hz, value } = closeIn(curve, ...between, fine);
      return { hz, value: sign * value };
    })
    .filter(({ value }) => Number.isFinite(value));
}

/** Gaps beside points that stand off their neighbours' line, worst first. */
function bentGaps(x: Float64Array, y: Float64Array, tolerance: number): number[] {
  const bend = new Float64Array(x.length - 1);
  const size = y.reduce((a, v) => Math.max(a, Math.abs(v)), 0);
  for (let k = 1; k + 1 < x.length; k++) {
    const t = Math.log(x[k] / x[k - 1]) / Math.log(x[k + 1] / x[k - 1]);
    const off = Math.abs(y[k] - (y[k - 1] + t * (y[k + 1] - y[k - 1])));
    const near = Math.max(Math.abs(y[k - 1]), Math.abs(y[k]), Math.abs(y[k + 1]));
    const much = off / (tolerance * near + 1e-4 * size);
    if (!(much > 1)) continue;
    bend[k - 1] = Math.max(bend[k - 1], much);
    bend[k] = Math.max(bend[k], much);
  }
  return Array.from(bend.keys())
    .filter((k) => bend[k] > 0 && x[k + 1] / x[k] > 1 + 1e-6)
    .sort((a, b) => bend[b] - bend[a]);
}

function onlyFinite({ frequenciesHz, columns }: Sampled): Sampled {
  const there = columns[0].map((v) => (Number.isFinite(v) ? 1 : 0));
  const kept = (column: Float64Array) => column.filter((_, k) => there[k] === 1);
  return { frequenciesHz: kept(frequenciesHz), columns: columns.map(kept) };
}
