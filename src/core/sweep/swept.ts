import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { ReedError } from '@/core/errors';
import type { MeasuredCurve } from '@/core/library/take-table';
import { DB_PER_NEPER } from '@/core/response/decibels';
import { levelDb, phaseDegrees } from '@/core/response/response';
import { growthSeconds, type SweepPlan } from './exponential-sweep';
import {
  AHEAD_SECONDS,
  arrivalOf,
  Deconvolution,
  isSoon,
  LONGEST_SECONDS,
  peakOf,
  SILENT,
  spectrumOf,
  type Impulse,
} from './impulse';
import { together } from './together';

/** What came back of a sweep. */
export interface Recording {
  /** Full scale is 1. */
  samples: Float64Array;
  rate: number;
}

export interface SweptRequest {
  plan: SweepPlan;
  /** What was sent out, full scale 1. */
  played: Float64Array;
  /** What came back through the board, once or several times. */
  recordings: readonly Recording[];
  /** What came back with a wire in the board’s place; without it converters count as perfect. */
  loopBack?: Recording;
  frequenciesHz: Float64Array;
  /** Orders of harmonics that are told apart. */
  orders?: readonly number[];
}

export interface Swept extends MeasuredCurve {
  /** From playing to coming back, seconds. */
  latencySeconds: number;
  /** True where it did not come back equally late each time: phases are those of nothing then. */
  hasMoved: boolean;
  /** The highest point of what came back, as a part of full scale. */
  peak: number;
  /** How far each level is off by itself, one standard deviation, dB; only where it was recorded more than once. */
  noiseDb?: number[];
  /** By order: the level of that harmonic against the level at its fundamental, dB; NaN where it cannot be heard. */
  harmonics: Harmonic[];
}

export interface Harmonic {
  order: number;
  levelDb: Float64Array;
}

/** Samples at full scale in a row are a clipped top. */
const CLIPPED = 0.999;
const CLIPPED_IN_A_ROW = 3;
/** Noise is told from so many points to either side. */
const NEIGHBOURS = 3;

/**
 * The response of a board from recordings of a sweep through it.
 *
 * @throws ReedError `range` for recordings that are clipped, silent, of another rate, too short, unlike
 * one another or of something else than the sweep
 */
export function swept(request: SweptRequest): Swept {
  const { plan, played, recordings, loopBack, frequenciesHz, orders = [] } = request;
  if (recordings.length === 0)
    throw new ReedError('range', 'Nothing was recorded: sweep once at least.');
  for (const one of [...recordings, ...(loopBack ? [loopBack] : [])])
    checkRecording(one, plan, played);
  const impulseOf = (samples: Float64Array) => new Deconvolution(samples, played, plan.rate);
  const { common, apart, hasMoved } = together(
    recordings.map((r) => r.samples),
    (samples) => Math.round(arrivalOf(impulseOf(samples).within(plan)) * plan.rate),
  );
  const found = impulseOf(common);
  const reference = loopBack && impulseOf(loopBack.samples);
  const begins = arrivalOfSweep('What came back', found.within(plan));
  const latencySeconds = reference
    ? arrivalOfSweep('The loop-back', reference.within(plan))
    : begins;
  const growth = growthSeconds(plan);
  // The second harmonic comes ahead by this: nothing of the linear part reaches so far.
  const room = growth * Math.LN2;
  const window = {
    fromSeconds: latencySeconds - Math.min(AHEAD_SECONDS, room / 2),
    toSeconds: latencySeconds + Math.min(LONGEST_SECONDS, played.length / plan.rate / 2),
  };
  const impulse = found.whole();
  const own = spectrumOf(impulse, window, latencySeconds, frequenciesHz);
  const wire = reference && spectrumOf(reference.whole(), window, latencySeconds, frequenciesHz);
  const linear = wire ? divided(own, wire) : own;
  const noise =
    apart && spectrumOf(impulseOf(apart).whole(), window, latencySeconds, frequenciesHz);
  return {
    frequenciesHz: Array.from(frequenciesHz),
    levelDb: Array.from(linear.re, (re, k) => levelDb(re, linear.im[k])),
    phaseDegrees: Array.from(linear.re, (re, k) => phaseDegrees(re, linear.im[k])),
    ...(noise ? { noiseDb: noiseOfLevels(noise, own) } : {}),
    latencySeconds,
    hasMoved,
    peak: Math.max(...recordings.map(({ samples }) => peakOf(samples))),
    harmonics: orders.map((order) => ({
      order,
      levelDb: harmonicOf(order, impulse, own, { growth, latencySeconds, frequenciesHz, plan }),
    })),
  };
}

/** Where the response in a recording begins; a recording of something else is refused. */
function arrivalOfSweep(what: string, impulse: Impulse): number {
  if (isSoon(impulse)) return arrivalOf(impulse);
  throw new ReedError(
    'range',
    `${what} is not this sweep: see that the input hears the board alone, and that the sweep is the one that was played.`,
  );
}

function harmonicOf(
  order: number,
  impulse: Impulse,
  linear: ComplexTrace,
  {
    growth,
    latencySeconds,
    frequenciesHz,
    plan,
  }: { growth: number; latencySeconds: number; frequenciesHz: Float64Array; plan: SweepPlan },
): Float64Array {
  const zero = latencySeconds - growth * Math.log(order);
  // Up to where the next order begins, either way.
  const ahead = growth * Math.log((order + 1) / order);
  const behind = growth * Math.log(order / (order - 1));
  const window = { fromSeconds: zero - ahead / 2, toSeconds: zero + behind / 2 };
  const { re, im } = spectrumOf(
    impulse,
    window,
    zero,
    frequenciesHz.map((hz) => order * hz),
  );
  return re.map((v, k) => {
    const hz = frequenciesHz[k];
    if (order * hz > plan.toHz || hz < plan.fromHz) return NaN;
    return levelDb(v, im[k]) - levelDb(linear.re[k], linear.im[k]);
  });
}

function checkRecording({ samples, rate }: Recording, plan: SweepPlan, played: Float64Array): void {
  if (rate !== plan.rate)
    throw new ReedError(
      'range',
      `The recording has ${rate} samples a second and the sweep was played at ${plan.rate}: record at the rate that is played.`,
    );
  if (samples.length < played.length)
    throw new ReedError(
      'range',
      `The recording lasts ${(samples.length / rate).toFixed(2)} s and the sweep ${(played.length / rate).toFixed(2)} s: record it to its end.`,
    );
  if (samples.some((v) => !Number.isFinite(v)))
    throw new ReedError('range', 'The recording has samples that are no numbers.');
  const peak = peakOf(samples);
  if (peak < SILENT)
    throw new ReedError(
      'range',
      'Nothing came back: see that the output of the board leads to the input, and that it is not muted.',
    );
  let row = 0;
  for (const v of samples) {
    row = Math.abs(v) >= CLIPPED * Math.max(1, peak) ? row + 1 : 0;
    if (row >= CLIPPED_IN_A_ROW)
      throw new ReedError('range', 'The recording is clipped: turn the source or the input down.');
  }
}

/** How far levels are off by noise: by the part of it in phase with each, and its neighbours’ beside. */
function noiseOfLevels(noise: ComplexTrace, signal: ComplexTrace): number[] {
  const powers = noise.re.map((re, k) => re * re + noise.im[k] ** 2);
  return Array.from(powers, (_, k) => {
    const near = powers.slice(Math.max(0, k - NEIGHBOURS), k + NEIGHBOURS + 1);
    const mean = near.reduce((sum, v) => sum + v, 0) / near.length;
    return (DB_PER_NEPER * Math.sqrt(mean / 2)) / Math.hypot(signal.re[k], signal.im[k]);
  });
}

function divided(a: ComplexTrace, b: ComplexTrace): ComplexTrace {
  const [re, im] = [a.re.slice(), a.im.slice()];
  for (let k = 0; k < re.length; k++) {
    const size = b.re[k] ** 2 + b.im[k] ** 2;
    re[k] = (a.re[k] * b.re[k] + a.im[k] * b.im[k]) / size;
    im[k] = (a.im[k] * b.re[k] - a.re[k] * b.im[k]) / size;
  }
  return { re, im };
}
