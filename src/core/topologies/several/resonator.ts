import { startCapacitor, TWO_PI, type StageChoice, type Values } from '../topology';
import type { Why } from '../why';

/*
 * A series resonance whose coil is made by two followers: looking into R3 one sees
 * Z = R3 (1 + s C2 R2), that is R3 in a row with L = R3 R2 C2. With C1 and the resistor R1 it lifts
 * or cuts around 1/(2 pi sqrt(L C1)).
 */

export const madeCoil = ({ R2, R3, C2 }: Values): number => R3 * R2 * C2;

/** The branch below (7,8), ending at ground through the made coil. */
export const RESONANCE = `capacitor C1 7,8 down left / 7,12 7,14 10,14 / op-amp A2 10,14 plus / 10,16 10,18 15,18 15,15
  14,15 17,15 / capacitor C2 17,15 right / 21,15 25,15 / 22,15 22,16 / resistor R2 22,16 down left / ground 22,20
  op-amp A3 25,15 plus / 25,17 25,19 30,19 30,16 / 29,16 32,16 32,22 13,22 / resistor R3 9,22 right
  9,22 5,22 5,13 7,13`;

/** @param damping R3 C1 w0 */
export function resonanceValues(
  f0Hz: number,
  R3: number,
  damping: number,
  choice?: StageChoice,
): Values {
  const w0 = TWO_PI * f0Hz;
  const C1 = damping / (w0 * R3);
  const C2 = startCapacitor(f0Hz, choice);
  return { R2: 1 / (w0 * w0 * C1 * R3 * C2), R3, C1, C2 };
}

export const RESONANCE_WHY: readonly Why[] = [
  {
    of: 'R2',
    formula: '\\frac{1}{(2\\pi @f0)^2 @C1 @R3 @C2}',
    text: 'Makes the coil: L is R3 times R2 times C2. It tunes f0 alone.',
  },
  {
    of: 'C2',
    formula: '\\frac{1}{(2\\pi @f0)^2 @C1 @R3 @R2}',
    text: 'The capacitor that is turned into a coil.',
  },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi\\sqrt{@R2 @R3 @C1 @C2}}',
    text: 'Made coil and C1 in resonance.',
  },
];

export const RESONATOR_WORDS = {
  outputs: 'The first op-amp’s output.',
  tuning: 'R2 moves f0; C1 and R2 together the width; R1 the height.',
  sensitivity: 'Half a per cent of f0 for one per cent of a part.',
  avoid:
    'Three op-amps for one peak: worth it where many share one amplifier, each with its own resonance.',
} as const;

/** Resistor that the resonance works against. */
export const WORKING_OHMS = 10_000;
