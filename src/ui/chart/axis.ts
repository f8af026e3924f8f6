import { frequencyLabel } from '@/core/quantity/frequency-ticks';

export interface ValueAxis {
  domain: readonly [number, number];
  ticks: number[];
  /** What stands at each tick, where that is not its number. */
  labels?: readonly string[];
}

/** The least and the greatest of all values; what is no number or infinite does not count. */
function extremesOf(traces: readonly ArrayLike<number>[]): [low: number, high: number] | undefined {
  let [low, high] = [Infinity, -Infinity];
  for (const trace of traces)
    for (let k = 0; k < trace.length; k++) {
      const value = trace[k];
      if (!Number.isFinite(value)) continue;
      if (value > high) high = value;
      if (value < low) low = value;
    }
  return low <= high ? [low, high] : undefined;
}

/** An axis for levels: the highest point with a little room above it, and at most 72 dB below. */
export function levelAxis(levels: readonly ArrayLike<number>[]): ValueAxis {
  const [bottom, top] = extremesOf(levels) ?? [-60, 0];
  const high = Math.ceil((top + 2) / 6) * 6;
  const low = Math.max(Math.floor((bottom - 1) / 12) * 12, Math.floor((high - 66) / 12) * 12);
  const span = high - Math.min(low, high - 12);
  return axisOf(high - span, high, span > 36 ? 12 : span > 18 ? 6 : 3);
}

/** An axis for ohms that are told as dB over one ohm: 1, 2 and 5 in each decade. */
export function ohmsAxis(levels: readonly ArrayLike<number>[]): ValueAxis {
  const [bottom, top] = extremesOf(levels) ?? [0, 60];
  const [low, high] = [bottom - 2, top + 2];
  const steps = high - low > 60 ? [1] : [1, 2, 5];
  const ohms: number[] = [];
  for (let decade = Math.floor(low / 20); decade <= high / 20; decade++)
    for (const step of steps) {
      const value = step * 10 ** decade;
      const db = 20 * Math.log10(value);
      if (db >= low && db <= high) ohms.push(value);
    }
  return {
    domain: [low, high],
    ticks: ohms.map((value) => 20 * Math.log10(value)),
    labels: ohms.map((value) => frequencyLabel(value)),
  };
}

/** An axis for phase in whole eighths of a turn. */
export function phaseAxis(phases: readonly ArrayLike<number>[]): ValueAxis {
  const [bottom, top] = extremesOf(phases) ?? [-90, 0];
  const high = Math.ceil((top + 5) / 45) * 45;
  const low = Math.floor((bottom - 5) / 45) * 45;
  return axisOf(low, high, high - low > 450 ? 90 : 45);
}

function axisOf(low: number, high: number, step: number): ValueAxis {
  const ticks: number[] = [];
  for (let tick = Math.ceil(low / step) * step; tick <= high + 1e-9; tick += step) ticks.push(tick);
  return { domain: [low, high], ticks };
}

/** Value of a trace at a frequency, along straight lines on the log axis; NaN outside it. */
export function valueAt(x: ArrayLike<number>, y: ArrayLike<number>, hz: number): number {
  if (hz < x[0] || hz > x[x.length - 1]) return NaN;
  let [low, high] = [0, x.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (x[middle] <= hz) low = middle;
    else high = middle;
  }
  const t = Math.log(hz / x[low]) / Math.log(x[high] / x[low]);
  return y[low] + (y[high] - y[low]) * t;
}

/** About `count` round values within a span. */
export function niceTicks(low: number, high: number, count: number): number[] {
  const rough = (high - low) / Math.max(1, count);
  const decade = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * decade).find((s) => s >= rough * 0.999)!;
  const ticks: number[] = [];
  for (let n = Math.ceil(low / step - 1e-9); n * step <= high + 1e-9 * step; n++)
    ticks.push(Number((n * step).toPrecision(12)));
  return ticks;
}

/** An axis for delays in seconds, from zero. */
export function delayAxis(delays: readonly ArrayLike<number>[]): ValueAxis {
  const [least, most] = extremesOf([[0], ...delays])!;
  const [bottom, top] = [least, most === 0 ? 1e-6 : most];
  const ticks = niceTicks(bottom, top * 1.05, 6);
  const step = ticks[1] - ticks[0];
  return {
    domain: [Math.floor(bottom / step) * step, Math.ceil((top * 1.02) / step) * step],
    ticks,
  };
}

/** Of so many points of a difference one may lie outside the picture: a zero that moved has no end. */
const OUTLYING = 0.03;

/** An axis for differences, with nothing on it, and with room for all but the wildest of them. */
export function differenceAxis(differences: readonly ArrayLike<number>[]): ValueAxis {
  let [low, high] = [0, 0];
  for (const trace of differences) {
    const sorted = Float64Array.from(trace).filter(Number.isFinite).sort();
    const last = sorted.length - 1;
    low = Math.min(low, sorted[Math.ceil(OUTLYING * last)] ?? 0);
    high = Math.max(high, sorted[Math.floor((1 - OUTLYING) * last)] ?? 0);
  }
  const room = Math.max(0.08 * (high - low), 0.005);
  return {
    domain: [low - room, high + room],
    ticks: niceTicks(low - room, high + room, 6),
  };
}
