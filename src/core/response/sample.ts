import type { ComplexTrace } from '@/core/analysis/ac/ac';
import { explored, type Landmark } from './landmarks';
import { levelDb, type Response } from './response';

export interface SampleOptions {
  fromHz: number;
  toHz: number;
  /** Where it may bend sharply; looked at closely from the beginning. */
  landmarks?: readonly Landmark[];
  maxPoints?: number;
  /** Largest deviation from a straight line between neighbours, in dB. Default 0.03 dB. */
  toleranceDb?: number;
  /** Deviations this far below the highest level do not matter. Default 120 dB. */
  depthDb?: number;
}

export interface SampledResponse extends ComplexTrace {
  frequenciesHz: Float64Array;
}

/**
 * Sample a response densely where its curve bends and sparsely where it runs straight.
 *
 * Each pass looks at every inner point: where it stands off the line through its neighbours (in
 * level, or in angle where the level still matters), the gaps on both sides of it are halved.
 */
export function sampleResponse(response: Response, options: SampleOptions): SampledResponse {
  const { fromHz, toHz, maxPoints = 400, toleranceDb = 0.03, depthDb = 120 } = options;
  const decades = Math.log10(toHz / fromHz);
  let x = explored({ fromHz, toHz }, options.landmarks ?? [], Math.max(16, 23 / decades));
  let trace = response(x);

  for (let pass = 0; pass < 10 && x.length < maxPoints; pass++) {
    const gaps = bentGaps(x, trace, toleranceDb, depthDb);
    if (gaps.length === 0) break;
    const room = maxPoints - x.length;
    const chosen = gaps.slice(0, room).sort((a, b) => a - b);
    const middle = Float64Array.from(chosen, (k) => Math.sqrt(x[k] * x[k + 1]));
    const found = response(middle);
    [x, trace] = merge(x, trace, middle, found);
  }
  return { frequenciesHz: x, re: trace.re, im: trace.im };
}

/** Gaps (k, k+1) next to points that stand off their neighbours' line, worst first. */
function bentGaps(
  x: Float64Array,
  trace: ComplexTrace,
  toleranceDb: number,
  depthDb: number,
): number[] {
  const n = x.length;
  const level = trace.re.map((re, k) => levelDb(re, trace.im[k]));
  const floor = level.reduce((a, b) => Math.max(a, b)) - depthDb;
  const bend = new Float64Array(n - 1);
  const logs = x.map((f) => Math.log(f));
  for (let k = 1; k < n - 1; k++) {
    const t = (logs[k] - logs[k - 1]) / (logs[k + 1] - logs[k - 1]);
    const a = Math.max(level[k - 1], floor);
    const b = Math.max(level[k], floor);
    const c = Math.max(level[k + 1], floor);
    const offLevel = Math.abs(b - (a + (c - a) * t)) / toleranceDb;
    // Three degrees off a straight turn count like one tolerance of level, down to half the depth.
    const offAngle =
      b > floor + depthDb / 2
        ? (Math.abs(turn(trace, k, k - 1) * (1 - t) - turn(trace, k + 1, k) * t) * 180) /
          Math.PI /
          3
        : 0;
    const off = Math.max(offLevel, offAngle);
    if (off > 1) {
      bend[k - 1] = Math.max(bend[k - 1], off);
      bend[k] = Math.max(bend[k], off);
    }
  }
  const wide = (k: number) => x[k + 1] / x[k] > 1 + 1e-5;
  return Array.from(bend.keys())
    .filter((k) => bend[k] > 0 && wide(k))
    .sort((a, b) => bend[b] - bend[a]);
}

/** Angle from point j to point k, -pi to pi. */
function turn(trace: ComplexTrace, k: number, j: number): number {
  const re = trace.re[k] * trace.re[j] + trace.im[k] * trace.im[j];
  const im = trace.im[k] * trace.re[j] - trace.re[k] * trace.im[j];
  return Math.atan2(im, re);
}

function merge(
  x: Float64Array,
  a: ComplexTrace,
  y: Float64Array,
  b: ComplexTrace,
): [Float64Array<ArrayBuffer>, ComplexTrace] {
  const n = x.length + y.length;
  const out = { x: new Float64Array(n), re: new Float64Array(n), im: new Float64Array(n) };
  for (let k = 0, i = 0, j = 0; k < n; k++) {
    const fromFirst = j >= y.length || (i < x.length && x[i] <= y[j]);
    const [source, at, xs] = fromFirst ? [a, i++, x] : [b, j++, y];
    out.x[k] = xs[at];
    out.re[k] = source.re[at];
    out.im[k] = source.im[at];
  }
  return [out.x, { re: out.re, im: out.im }];
}
