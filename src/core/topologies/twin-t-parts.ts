import { TWO_PI, type StageFigures, type Values } from './topology';
import type { Why } from './why';

/*
 * The twin-T with all resistors equal and all capacitors equal: R/2 is two in parallel, 2C is two in
 * parallel, so that parts of one batch match (Van Valkenburg, "Analog Filter Design", 1982, ch. 10).
 *
 *   H = (1 + s^2 R^2 C^2) / (1 + 4 (1-k) s R C + s^2 R^2 C^2)
 *
 * with a fraction k of the output fed to the feet of both Ts.
 */

/** Both Ts between (1,6) and (27,6); their feet stand at (8,14) and (20,14). */
export const TWIN_T_PARTS = `
  1,6 1,2 2,2 / 1,6 14,6 15,6 / capacitor C1 15,6 right / 19,6 21,6 / capacitor C2 21,6 right / 25,6 27,6
  resistor R1 2,2 right / 6,2 10,2 / resistor R2 10,2 right / 14,2 26,2 26,6
  8,2 8,8 / 6,8 10,8 / 6,8 6,9 / 10,8 10,9 / capacitor C3 6,9 down left / capacitor C4 10,9 down right
  6,13 6,14 / 10,13 10,14
  20,6 20,8 / 18,8 22,8 / 18,8 18,9 / 22,8 22,9 / resistor R3 18,9 down left / resistor R4 22,9 down right
  18,13 18,14 / 22,13 22,14`;

export const twinTValues = (R: number, C: number): Values => ({
  R1: R,
  R2: R,
  R3: R,
  R4: R,
  C1: C,
  C2: C,
  C3: C,
  C4: C,
});

/** Figures of a matched twin-T; of a mismatched one the nearest, by geometric means. */
export function twinTFigures(values: Values, fedBack: number): StageFigures {
  const mean = (letter: string) =>
    Math.pow(
      values[`${letter}1`] * values[`${letter}2`] * values[`${letter}3`] * values[`${letter}4`],
      1 / 4,
    );
  return {
    f0Hz: 1 / (TWO_PI * mean('R') * mean('C')),
    q: 1 / (4 * (1 - fedBack)),
    gain: 1,
    own: { k: fedBack },
  };
}

export const TWIN_T_WHY: readonly Why[] = [
  {
    of: 'R1 R2 R3 R4',
    formula: '\\frac{1}{2\\pi @f0 @C1}',
    text: 'Four equal resistors: two in parallel make the half that the foot of one T needs.',
  },
  {
    of: 'C1 C2 C3 C4',
    formula: '\\frac{1}{2\\pi @f0 @R1}',
    text: 'Four equal capacitors: two in parallel make the double that the foot of the other T needs.',
  },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi @R1 @C1}',
    text: 'Here the two Ts cancel; with matched parts nothing is left.',
  },
  {
    of: 'Q',
    formula: '\\frac{1}{4 (1 - @k)}',
    text: 'A quarter without bootstrapping (k = 0), more with the feet driven by the output.',
  },
];
