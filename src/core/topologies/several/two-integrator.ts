import { sketch } from '@/core/drawing/sketch';
import {
  startCapacitor,
  TWO_PI,
  type BlockDiagram,
  type StageChoice,
  type Values,
} from '../topology';
import type { Why } from '../why';

/*
 * Two integrators and an inverter in a loop, the summer merged into the first integrator (J. Tow,
 * "Active RC filters: a state-space realization", Proc. IEEE 56, 1968; L. C. Thomas, "The biquad",
 * IEEE Trans. Circuit Theory CT-18, 1971):
 *
 *   band = -(s/(R1 C1)) / D,   low = (1/(R1 R4 C1 C2)) / D,   D = s^2 + s/(R2 C1) + (R6/R5)/(R3 R4 C1 C2)
 */
export function twoIntegratorLoop({ R1, R2, R3, R4, R5, R6, C1, C2 }: Values) {
  const w0 = Math.sqrt(R6 / R5 / (R3 * R4 * C1 * C2));
  return { f0Hz: w0 / TWO_PI, q: w0 * R2 * C1, band: -R2 / R1, low: ((R3 / R1) * R5) / R6 };
}

const USUAL = 10_000;

export function twoIntegratorValues(
  f0Hz: number,
  q: number,
  R1over: number,
  choice?: StageChoice,
): Values {
  const C = startCapacitor(f0Hz, choice);
  const R = 1 / (TWO_PI * f0Hz * C);
  return { R1: R * R1over, R2: q * R, R3: R, R4: R, R5: USUAL, R6: USUAL, C1: C, C2: C };
}

const BASE = `in 0,6 / 0,6 1,6 / resistor R1 1,6 right / 5,6 10,6 / op-amp A1 10,6 minus / 10,8 10,10 / ground 10,10
  8,6 8,3 10,3 / capacitor C1 10,3 right / 14,3 16,3 16,7 / 8,3 8,0 10,0 / resistor R2 10,0 right / 14,0 16,0 16,3
  14,7 18,7 / resistor R4 18,7 right / 22,7 24,7 / op-amp A2 24,7 minus / 24,9 24,11 / ground 24,11
  23,7 23,4 24,4 / capacitor C2 24,4 right / 28,4 30,4 30,8 / 28,8 32,8 / resistor R5 32,8 right / 36,8 38,8
  op-amp A3 38,8 minus / 38,10 38,12 / ground 38,12 / 37,8 37,5 38,5 / resistor R6 38,5 right / 42,5 44,5 44,9
  42,9 47,9 / tap inverted 47,9 / 45,9 45,15 18,15 / resistor R3 14,15 right / 14,15 7,15 7,6`;

export const TWO_INTEGRATOR_DRAWINGS = {
  low: sketch(`${BASE} / tap band 17,7 / 31,8 31,1 34,1 / out 34,1 low`),
  band: sketch(`${BASE} / tap low 31,8 / 17,7 17,-2 20,-2 / out 20,-2 band`),
};

export const TWO_INTEGRATOR_WHY: readonly Why[] = [
  { of: 'R2', formula: '\\frac{@Q}{2\\pi @f0 @C1}', text: 'The damping: Q times the others.' },
  { of: 'R3', formula: '\\frac{@R6}{@R5 (2\\pi @f0)^2 @R4 @C1 @C2}', text: 'Closes the loop.' },
  {
    of: 'R4',
    formula: '\\frac{@R6}{@R5 (2\\pi @f0)^2 @R3 @C1 @C2}',
    text: 'Drives the second integrator.',
  },
  { of: 'R5 R6', text: 'The inverter; any equal pair.' },
  { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi}\\sqrt{\\frac{@R6}{@R5 @R3 @R4 @C1 @C2}}',
    text: 'Set by the integrators.',
  },
  {
    of: 'Q',
    formula: '2\\pi @f0 @R2 @C1',
    text: 'Set by R2 alone; the width in hertz stays as f0 is swept with R3.',
  },
];

export const TWO_INTEGRATOR_BLOCKS: BlockDiagram = {
  row: [
    { text: '−H', parts: ['R1'] },
    { text: '−ω₀/(s + ω₀/Q)', out: 'band', parts: ['R2', 'C1'] },
    { text: '−ω₀/s', out: 'low', parts: ['R4', 'C2'] },
    { text: '−1', out: 'inverted low', parts: ['R5', 'R6'] },
  ],
  back: [{ from: 3, to: 1, text: '1', parts: ['R3'] }],
};

export const TWO_INTEGRATOR_WORDS = {
  about:
    'Two integrators and an inverter in a loop; the first integrator also sums, and a resistor across it damps the loop.',
  outputs: 'Band at the first op-amp, low at the second, inverted low at the third.',
  tuning:
    'R3 (or R4) moves f0, R2 the width in hertz, R1 the gain, in that order without going back.',
  sensitivity: 'As low as the state variable: half a per cent of f0 for one per cent of a part.',
  avoid: 'It has no high output; with slow op-amps the Q rises by itself.',
} as const;
