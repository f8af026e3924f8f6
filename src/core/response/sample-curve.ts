import { closeIn, localSummits, type Curve } from './extremes';
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
  let [x, y] = merged(new Float64Array(0), new Float64Array(0), start, curve(start));
  for (let pass = 0; pass < MOST_PASSES && x.length < maxPoints; pass++) {
    const gaps = bentGaps(x, y, tolerance).slice(0, maxPoints - x.length);
    if (gaps.length === 0) break;
    const middle = Float64Array.from(
      gaps.sort((a, b) => a - b),
      (k) => Math.sqrt(x[k] * x[k + 1]),
    );
    [x, y] = merged(x, y, middle, curve(middle));
  }
  const turned: Curve = (hz) => curve(hz).map((v) => -v);
  const turns = [...turnsOf(curve, x, y, 1), ...turnsOf(turned, x, y, -1)].sort(
    (a, b) => a.hz - b.hz,
  );
  [x, y] = merged(
    x,
    y,
    Float64Array.from(turns, (t) => t.hz),
    Float64Array.from(turns, (t) => t.value),
  );
  return { frequenciesHz: x, values: y };
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

function merged(
  x: Float64Array,
  y: Float64Array,
  moreX: Float64Array,
  moreY: Float64Array,
): [Float64Array<ArrayBuffer>, Float64Array<ArrayBuffer>] {
  const order = Array.from({ length: x.length + moreX.length }, (_, k) => k).filter(
    (k) => k < x.length || Number.isFinite(moreY[k - x.length]),
  );
  const hz = (k: number) => (k < x.length ? x[k] : moreX[k - x.length]);
  order.sort((a, b) => hz(a) - hz(b));
  return [
    Float64Array.from(order, hz),
    Float64Array.from(order, (k) => (k < x.length ? y[k] : moreY[k - x.length])),
  ];
}
