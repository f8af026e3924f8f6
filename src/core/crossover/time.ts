import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { impulseOfResponse } from '@/core/speaker/inverse-transform';
import { nearestMetres, solveCrossover } from './solve';
import { isCrossover } from './crossover-design';

/** What arrives at the listener of a step at the amplifier. */
export interface StepPicture {
  /** Milliseconds from when sound could first arrive. */
  milliseconds: Float64Array;
  /** Of the sum and of each way, the sum’s highest point being one. */
  sum: Float64Array;
  ways: { id: string; values: Float64Array }[];
  problem: string | null;
}

/** Samples of a transform, and how many a second: the lowest resonances have died away within it. */
const SAMPLES = 16_384;
const PER_SECOND = 96_000;
/** Above, the response is faded out over so many octaves, so that nothing rings that is not there. */
const FADES_FROM = 14_000;
const FADES_OVER = 1.5;
/** What is shown, seconds before and after the first arrival. */
const BEFORE = 0.0002;
const AFTER = 0.004;

/**
 * The step response at the listener, by transforming the pressures over frequency: the integral of
 * what an impulse makes. Sound is counted from when it could first come from the nearest driver.
 */
export function stepPicture(sheet: Sheet): StepPicture {
  const empty = new Float64Array(0);
  const none: StepPicture = { milliseconds: empty, sum: empty, ways: [], problem: null };
  if (!isCrossover(sheet)) return none;
  try {
    const speaker = solveCrossover(sheet, 'true', `${sheet.id} step`);
    const metres = nearestMetres(speaker);
    const step = PER_SECOND / SAMPLES;
    const hz = Float64Array.from({ length: SAMPLES / 2 }, (_, k) => (k + 1) * step);
    const { ways } = speaker.sound(speaker.electrical(hz));
    // So much earlier is where the window begins.
    const early = metres / SPEED_OF_SOUND - BEFORE;
    const steps = ways.map((way) =>
      integrated(impulseOfResponse(way, hz, { afterSeconds: early, keep: fade })),
    );
    const count = Math.round((BEFORE + AFTER) * PER_SECOND);
    const sum = new Float64Array(count);
    for (const values of steps) for (let n = 0; n < count; n++) sum[n] += values[n];
    const most = sum.reduce((a, b) => Math.max(a, Math.abs(b)), 1e-12);
    return {
      milliseconds: Float64Array.from(sum, (_, n) => 1000 * (n / PER_SECOND - BEFORE)),
      sum: sum.map((v) => v / most),
      ways: steps.map((values, i) => ({
        id: sheet.ways[i].id,
        values: values.slice(0, count).map((v) => v / most),
      })),
      problem: null,
    };
  } catch (error) {
    return { ...none, problem: messageOf(error) };
  }
}

/** One below, nothing where it has faded out. */
function fade(hz: number): number {
  const part = Math.log2(hz / FADES_FROM) / FADES_OVER;
  if (part <= 0) return 1;
  return part >= 1 ? 0 : Math.cos((Math.PI / 2) * part) ** 2;
}

/** Running sum; what stands at the end of the window is where nothing has begun yet. */
function integrated(impulse: Float64Array): Float64Array {
  const out = new Float64Array(impulse.length);
  let sum = 0;
  for (let n = 0; n < impulse.length; n++) out[n] = sum += impulse[n];
  return out;
}
