import type { Tally } from './tally';

const READ_PARTS = [0.01, 0.05, 0.5, 0.95, 0.99] as const;
const BAND_PARTS = [0.05, 0.5, 0.95] as const;

/** A band that nine boards in ten stay in, by frequency, with its middle. */
export interface SpreadBand {
  hz: Float64Array;
  p5: Float64Array;
  p50: Float64Array;
  p95: Float64Array;
}

/** The band of what was counted at each of some frequencies. */
export function bandOf(hz: Float64Array, tallies: readonly Tally[]): SpreadBand {
  const bands = tallies.map((t) => t.percentiles(BAND_PARTS));
  const [p5, p50, p95] = BAND_PARTS.map((_, part) => Float64Array.from(bands, (b) => b[part]));
  return { hz, p5, p50, p95 };
}

/** What is told of a reading of many boards. */
export function figuresOf(tally: Tally) {
  const [p1, p5, p50, p95, p99] = tally.percentiles(READ_PARTS);
  return { mean: tally.mean, sd: tally.sd, p1, p5, p50, p95, p99 };
}
