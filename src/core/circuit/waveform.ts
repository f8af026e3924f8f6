import * as z from 'zod';
import { finite, notNegative, positive } from './part';

const { floor, sin } = Math;

const level = { lowVolts: finite.default(0), highVolts: finite };
const swing = {
  offsetVolts: finite.default(0),
  amplitudeVolts: finite,
  frequencyHz: positive,
  delaySeconds: notNegative.default(0),
};

/**
 * What an independent source does over time. Before its delay each shape rests at the value the
 * operating point is taken at: `lowVolts` of a step or square, `offsetVolts` of the others.
 * (For a current source the same fields are read in amperes.)
 */
export const waveformSchema = z.discriminatedUnion('shape', [
  z.strictObject({
    shape: z.literal('step'),
    ...level,
    delaySeconds: notNegative.default(0),
    riseSeconds: notNegative.default(0),
  }),
  z.strictObject({
    shape: z.literal('square'),
    ...level,
    frequencyHz: positive,
    duty: finite.gt(0).lt(1).default(0.5),
    delaySeconds: notNegative.default(0),
    riseSeconds: notNegative.default(0),
  }),
  z.strictObject({ shape: z.literal('sine'), ...swing, degrees: finite.default(0) }),
  z.strictObject({ shape: z.literal('triangle'), ...swing }),
  z.strictObject({ shape: z.literal('saw'), ...swing }),
  z.strictObject({
    shape: z.literal('burst'),
    ...swing,
    cycles: positive.default(10),
    repeatSeconds: positive.optional(),
  }),
  z.strictObject({
    shape: z.literal('noise'),
    offsetVolts: finite.default(0),
    rmsVolts: notNegative,
    sampleSeconds: positive,
    seed: z.int().nonnegative().default(1),
  }),
  z.strictObject({
    shape: z.literal('samples'),
    offsetVolts: finite.default(0),
    sampleSeconds: positive,
    volts: z.array(finite).min(1),
    repeat: z.boolean().default(false),
  }),
]);

export type Waveform = z.infer<typeof waveformSchema>;

/** What a source gives before anything happens. */
export function valueAtRest(w: Waveform): number {
  return w.shape === 'step' || w.shape === 'square' ? w.lowVolts : w.offsetVolts;
}

/**
 * The value of a waveform at a time, seconds from the start.
 *
 * @param side where it jumps at that time: -1 for what it was, 1 for what it will be
 */
export function waveformValue(w: Waveform, t: number, side: -1 | 1 = 1): number {
  if (t < 0) return valueAtRest(w);
  switch (w.shape) {
    case 'step': {
      const since = t - w.delaySeconds;
      if (isBefore(since, 0, side)) return w.lowVolts;
      const part = w.riseSeconds > 0 ? Math.min(1, since / w.riseSeconds) : 1;
      return w.lowVolts + part * (w.highVolts - w.lowVolts);
    }
    case 'square': {
      const since = t - w.delaySeconds;
      if (isBefore(since, 0, side)) return w.lowVolts;
      const { rise, duty } = squareMarks(w);
      const phase = cyclePart(since, w.frequencyHz, [0, rise, duty, duty + rise], side);
      const swing = w.highVolts - w.lowVolts;
      if (phase < rise) return w.lowVolts + (swing * phase) / rise;
      if (phase < duty) return w.highVolts;
      if (phase < duty + rise) return w.highVolts - (swing * (phase - duty)) / rise;
      return w.lowVolts;
    }
    case 'sine':
      return t < w.delaySeconds
        ? w.offsetVolts
        : w.offsetVolts + w.amplitudeVolts * sineOf(w, t - w.delaySeconds, w.degrees);
    case 'triangle': {
      if (t < w.delaySeconds) return w.offsetVolts;
      const p = cyclePart(t - w.delaySeconds, w.frequencyHz, [0], side);
      return (
        w.offsetVolts + w.amplitudeVolts * (p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4)
      );
    }
    case 'saw': {
      if (isBefore(t - w.delaySeconds, 0, side)) return w.offsetVolts;
      const p = cyclePart(t - w.delaySeconds, w.frequencyHz, [0, 0.5], side);
      return w.offsetVolts + w.amplitudeVolts * (p < 0.5 ? 2 * p : 2 * p - 2);
    }
    case 'burst': {
      const since = t - w.delaySeconds;
      if (since < 0) return w.offsetVolts;
      const every = w.repeatSeconds ?? Infinity;
      const into = cyclePart(since, 1 / every, [0, w.cycles / w.frequencyHz / every], side) * every;
      const now = w.repeatSeconds ? into : since;
      return isBefore(now, w.cycles / w.frequencyHz, side)
        ? w.offsetVolts + w.amplitudeVolts * sineOf(w, now, 0)
        : w.offsetVolts;
    }
    case 'noise': {
      // Straight lines between seeded draws; their rms is that of the draws less a third, made up for here.
      const at = t / w.sampleSeconds;
      const k = Math.floor(at);
      const [a, b] = [gaussian(w.seed, k), gaussian(w.seed, k + 1)];
      return (
        w.offsetVolts +
        w.rmsVolts * Math.sqrt(1.5) * (k === 0 ? b * (at - k) : a + (b - a) * (at - k))
      );
    }
    case 'samples': {
      const at = t / w.sampleSeconds;
      const n = w.volts.length;
      const k = Math.floor(at);
      const sample = (i: number) =>
        i < n ? w.volts[i] : w.repeat ? w.volts[i % n] : w.volts[n - 1];
      return w.offsetVolts + sample(k) + (sample(k + 1) - sample(k)) * (at - k);
    }
  }
}

function sineOf(
  { frequencyHz }: { frequencyHz: number },
  seconds: number,
  degrees: number,
): number {
  const cycles = seconds * frequencyHz;
  return sin(2 * Math.PI * (cycles - floor(cycles)) + (degrees * Math.PI) / 180);
}

/** Rise and duty of a square as parts of its period. */
function squareMarks(w: Extract<Waveform, { shape: 'square' }>): { rise: number; duty: number } {
  const most = 0.5 * Math.min(w.duty, 1 - w.duty);
  return { rise: Math.min(w.riseSeconds * w.frequencyHz, most), duty: w.duty };
}

/** A jump of more than this part of a waveform's size is one. */
const JUMP = 1e-9;

/** Whether a waveform jumps at a time, and does not only bend. */
export function jumpsAt(w: Waveform, t: number): boolean {
  const [before, after] = [waveformValue(w, t, -1), waveformValue(w, t, 1)];
  const size =
    'highVolts' in w
      ? Math.abs(w.highVolts - w.lowVolts)
      : 'amplitudeVolts' in w
        ? w.amplitudeVolts
        : 0;
  return Math.abs(after - before) > JUMP * Math.abs(size);
}

/** How often a second, at most, a waveform jumps or bends. */
export function breaksPerSecond(w: Waveform): number {
  switch (w.shape) {
    case 'square':
      return 4 * w.frequencyHz;
    case 'triangle':
    case 'saw':
      return 2 * w.frequencyHz;
    case 'burst':
      return w.repeatSeconds ? 2 / w.repeatSeconds : 0;
    case 'noise':
    case 'samples':
      return 1 / w.sampleSeconds;
    case 'step':
    case 'sine':
      return 0;
  }
}

/** The frequency that steps have to follow between breaks, hertz; 0 for straight lines. */
export const followedHz = (w: Waveform): number =>
  w.shape === 'sine' || w.shape === 'burst' ? w.frequencyHz : 0;

/** The next time after `t` at which a waveform jumps or bends sharply; Infinity when it never does. */
export function nextBreak(w: Waveform, t: number): number {
  const later = (times: number[]) =>
    times.reduce((best, x) => (x > t * (1 + 1e-12) + 1e-15 && x < best ? x : best), Infinity);
  switch (w.shape) {
    case 'step':
      return later([w.delaySeconds, w.delaySeconds + w.riseSeconds]);
    case 'square': {
      const { rise, duty } = squareMarks(w);
      const cycle = Math.floor((t - w.delaySeconds) * w.frequencyHz + 1e-9);
      const marks = [0, rise, duty, duty + rise];
      return later(
        [cycle, cycle + 1].flatMap((c) =>
          c < 0 ? [] : marks.map((m) => w.delaySeconds + (c + m) / w.frequencyHz),
        ),
      );
    }
    case 'triangle':
    case 'saw': {
      const marks = w.shape === 'triangle' ? [0, 0.25, 0.75] : [0, 0.5];
      const cycle = Math.floor((t - w.delaySeconds) * w.frequencyHz + 1e-9);
      return later([
        w.delaySeconds,
        ...[cycle, cycle + 1].flatMap((c) =>
          c < 0 ? [] : marks.map((m) => w.delaySeconds + (c + m) / w.frequencyHz),
        ),
      ]);
    }
    case 'burst': {
      const length = w.cycles / w.frequencyHz;
      const repeat = w.repeatSeconds
        ? Math.max(0, Math.floor((t - w.delaySeconds) / w.repeatSeconds))
        : 0;
      return later(
        [repeat, repeat + 1].flatMap((k) =>
          [0, length].map((m) => w.delaySeconds + k * (w.repeatSeconds ?? 0) + m),
        ),
      );
    }
    case 'sine':
      return later([w.delaySeconds]);
    case 'noise':
    case 'samples':
      return (Math.floor(t / w.sampleSeconds + 1e-9) + 1) * w.sampleSeconds;
  }
}

/** Nearer than this part of a cycle to a mark is at it. */
const AT = 1e-9;
/** So little before a mark counts as just before it. */
const JUST = 1e-12;

const isBefore = (t: number, mark: number, side: -1 | 1): boolean =>
  Math.abs(t - mark) <= AT * Math.abs(mark) ? side < 0 : t < mark;

/**
 * Part of the present cycle, 0 to 1. At a mark, which rounding may miss by a hair, it is the mark or
 * just less, as `side` says; a hair before the end counts as the next beginning.
 */
function cyclePart(t: number, frequencyHz: number, marks: readonly number[], side: -1 | 1): number {
  const cycles = t * frequencyHz;
  const part = cycles - floor(cycles);
  for (const mark of marks) {
    if (Math.abs(part - mark) < AT) return side > 0 ? mark : mark > 0 ? mark - JUST : 1 - JUST;
    if (mark === 0 && part > 1 - AT) return side > 0 ? 0 : 1 - JUST;
  }
  return part > 1 - AT ? 0 : part;
}

/** A normal draw that depends on seed and index alone (splitmix, then Box and Muller). */
function gaussian(seed: number, index: number): number {
  const mix = (n: number) => {
    let z = (Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) + Math.imul(n, 0xc2b2ae35)) | 0;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return ((z ^ (z >>> 15)) >>> 0) / 4294967296;
  };
  return Math.sqrt(-2 * Math.log(1 - mix(2 * index))) * Math.cos(2 * Math.PI * mix(2 * index + 1));
}
