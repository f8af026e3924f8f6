import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';

/*
 * The inverting stage that many circuits are: something from the input to the inverting input,
 * something from the output back to it.
 */

/** Drawn input branches, from (2,6) on to (10,6). */
export const INPUT = {
  resistor: '0,6 4,6 / resistor R1 4,6 right / 8,6 10,6',
  /** R1 with C1 across it, and R3 before both. */
  seriesThenParallel: `0,6 / resistor R1 0,6 right / 4,6 5,6 / resistor R3 5,6 right / 9,6 10,6
    5,6 5,9 / capacitor C1 5,9 right / 9,9 9,6`,
  /** R1, and C1 with R3 in a row across it. */
  besideSeries:
    '0,6 3,6 / resistor R1 3,6 right / 7,6 10,6 / 0,6 0,9 1,9 / capacitor C1 1,9 right / 5,9 / resistor R3 5,9 right / 9,9 9,6',
  /** C1 and R1 in a row. */
  series: '0,6 / capacitor C1 0,6 right / 4,6 5,6 / resistor R1 5,6 right / 9,6 10,6',
} as const;

/** Drawn feedback branches, from (10,6) over the top to (20,7). */
export const FEEDBACK = {
  resistor: '10,6 10,3 13,3 / resistor R2 13,3 right / 17,3 20,3 20,7',
  /** R2 with C1 across it. */
  parallel: `10,6 10,3 13,3 / resistor R2 13,3 right / 17,3 20,3 20,7
    10,3 10,0 13,0 / capacitor C1 13,0 right / 17,0 20,0 20,3`,
  /** R2 in a row with (R3 and C1 across it). */
  seriesThenParallel: `10,6 10,3 / resistor R2 10,3 right / 14,3 16,3 / resistor R3 16,3 right / 20,3 21,3 21,7
    15,3 15,0 16,0 / capacitor C1 16,0 right / 20,0 21,0 21,3`,
  /** R2, and C1 with R3 in a row across it. */
  besideSeries: `10,6 10,3 13,3 / resistor R2 13,3 right / 17,3 20,3 20,7
    10,3 10,0 11,0 / capacitor C1 11,0 right / resistor R3 15,0 right / 19,0 20,0 20,3`,
} as const;

export function invertingDrawing(
  input: keyof typeof INPUT,
  feedback: keyof typeof FEEDBACK,
): Drawing {
  return sketch(`in 0,6 / ${INPUT[input]} / 10,6 14,6 / op-amp A1 14,6 minus / 14,8 14,10 / ground 14,10
    18,7 23,7 / out 23,7 / ${FEEDBACK[feedback]}`);
}
