import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { withMiddles, type Sampled } from './halve';
import { explored, mergedGrid, type Landmark } from './landmarks';
import { levelDb, type Response } from './response';

export interface SampleOptions {
  fromHz: number;
  toHz: number;
  /** Where it may bend sharply; looked at closely from the beginning. */
  landmarks?: readonly Landmark[];
  maxPoints?: number;
  /** Points that are to be among them. */
  also?: Float64Array;
  /** Largest deviation from a straight line between neighbours, in dB. Default 0.03 dB. */
  toleranceDb?: number;
  /** Deviations this far below the highest level do not matter. Default 120 dB. */
  depthDb?: number;
}

export interface SampledResponse extends ComplexTrace {
  frequenciesHz: Float64Array;
}

/** Several responses over the same frequencies. */
export interface SampledTogether {
  frequenciesHz: Float64Array;
  traces: ComplexTrace[];
}

/**
 * Sample a response densely where its curve bends and sparsely where it runs straight.
 *
 * Each pass looks at every inner point: where it stands off the line through its neighbours (in
 * level, or in angle where the level still matters), the gaps on both sides of it are halved.
 */
export function sampleResponse(response: Response, options: SampleOptions): SampledResponse {
  const { frequenciesHz, traces } = sampleTogether((hz) => [response(hz)], options);
  return { frequenciesHz, ...traces[0] };
}

/** Sample several responses where the first of them asks for it. */
export function sampleTogether(
  responses: (frequenciesHz: Float64Array) => readonly ComplexTrace[],
  options: SampleOptions,
): SampledTogether {
  const { fromHz, toHz, maxPoints = 400, toleranceDb = 0.03, depthDb = 120 } = options;
  const decades = Math.log10(toHz / fromHz);
  const columnsAt = (hz: Float64Array) => responses(hz).flatMap(({ re, im }) => [re, im]);
  const explores = explored({ fromHz, toHz }, options.landmarks ?? [], Math.max(16, 23 / decades));
  const start = options.also ? mergedGrid(explores, options.also) : explores;
  let sampled: Sampled = { frequenciesHz: start, columns: columnsAt(start) };
  for (let pass = 0; pass < 10 && sampled.frequenciesHz.length < maxPoints; pass++) {
    const {
      frequenciesHz,
      columns: [re, im],
    } = sampled;
    const gaps = bentGaps(frequenciesHz, { re, im }, toleranceDb, depthDb);
    if (gaps.length === 0) break;
    sampled = withMiddles(sampled, gaps.slice(0, maxPoints - frequenciesHz.length), columnsAt);
  }
  const { frequenciesHz, columns } = sampled;
  const traces = Array.from({ length: columns.length / 2 }, (_, i) => ({
    re: columns[2 * i],
    im: columns[2 * i + 1],
  }));
  return { frequenciesHz, traces };
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
