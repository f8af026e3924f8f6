import { waveformValue, type Waveform } from './waveform';

const { cos, sin, floor } = Math;

/** A turning pointer is set anew after so many steps: rounding stays below a few eps. */
const TURNS = 16;

/** A sample's length is so near to a whole number of steps that a million of them stay together. */
const ON_GRID = 1e-12;

/** Times of a grid: first, first + 1, ... so many steps of its length. */
export interface Grid {
  first: number;
  count: number;
  seconds: number;
}

/** Whether a waveform never jumps, and bends at none but a grid's times. */
export function bendsOnlyOnGrid(w: Waveform, seconds: number): boolean {
  if (w.shape !== 'samples' && w.shape !== 'noise') return false;
  const steps = w.sampleSeconds / seconds;
  return Math.abs(steps - Math.round(steps)) <= ON_GRID && Math.round(steps) >= 1;
}

/** Values of a waveform after jumps on a grid, written to every `stride`-th place from `at` on. */
export function waveformOnGrid(
  w: Waveform,
  { first, count, seconds }: Grid,
  into: Float64Array,
  at: number,
  stride: number,
): void {
  if (w.shape === 'sine' && first * seconds >= w.delaySeconds) {
    sineOnGrid(w, { first, count, seconds }, into, at, stride);
    return;
  }
  for (let i = 0; i < count; i++, at += stride)
    into[at] = waveformValue(w, (first + i) * seconds, 1);
}

/** A pointer that turns by the same angle each step costs a fifth of a sine. */
function sineOnGrid(
  w: Extract<Waveform, { shape: 'sine' }>,
  { first, count, seconds }: Grid,
  into: Float64Array,
  at: number,
  stride: number,
): void {
  const angle = 2 * Math.PI * w.frequencyHz * seconds;
  const [across, along] = [sin(angle), cos(angle)];
  for (let from = 0; from < count; from += TURNS) {
    const cycles = ((first + from) * seconds - w.delaySeconds) * w.frequencyHz;
    const phase = 2 * Math.PI * (cycles - floor(cycles)) + (w.degrees * Math.PI) / 180;
    let y = w.amplitudeVolts * sin(phase);
    let x = w.amplitudeVolts * cos(phase);
    const until = Math.min(count, from + TURNS);
    for (let i = from; i < until; i++, at += stride) {
      into[at] = w.offsetVolts + y;
      const turned = x * along - y * across;
      y = y * along + x * across;
      x = turned;
    }
  }
}
