import type { BlockDiagram } from '../topology';
import {
  startCapacitor,
  TWO_PI,
  type StageChoice,
  type StageFigures,
  type Values,
} from '../topology';
import type { Why } from '../why';

/*
 * A summer and two integrators in a loop (W. J. Kerwin, L. P. Huelsman, R. W. Newcomb,
 * "State-variable synthesis for insensitive integrated circuit transfer functions", IEEE J.
 * Solid-State Circuits SC-2, 1967). With T1 = R6 C1, T2 = R7 C2, m = 1 + R3/R1 + R3/R2 and
 * b = R5/(R4+R5):
 *
 *   high = -(R3/R1) s^2 / (s^2 + s m b/T1 + (R3/R2)/(T1 T2)),  band = -high/(s T1),  low = -band/(s T2)
 */

/** f0, Q and the gains at the three outputs. */
export function stateVariableLoop(v: Values) {
  const [T1, T2] = [v.R6 * v.C1, v.R7 * v.C2];
  const w0 = Math.sqrt(v.R3 / v.R2 / (T1 * T2));
  const damping = ((1 + v.R3 / v.R1 + v.R3 / v.R2) * v.R5) / (v.R4 + v.R5);
  return {
    f0Hz: w0 / TWO_PI,
    q: (w0 * T1) / damping,
    high: -v.R3 / v.R1,
    band: v.R3 / v.R1 / damping,
    low: -v.R2 / v.R1,
  };
}

export const loopFigures = (v: Values, at: 'high' | 'band' | 'low'): StageFigures => {
  const loop = stateVariableLoop(v);
  return { f0Hz: loop.f0Hz, q: loop.q, gain: loop[at], own: { H: v.R3 / v.R1 } };
};

const USUAL = 10_000;

/** Equal integrators and equal summing resistors; H is the gain at the high and low outputs. */
export function stateVariableValues(
  f0Hz: number,
  q: number,
  H: number,
  choice?: StageChoice,
): Values {
  const C = startCapacitor(f0Hz, choice);
  const R = 1 / (TWO_PI * f0Hz * C);
  const sum = choice?.ohms ?? USUAL;
  return {
    R1: sum / H,
    R2: sum,
    R3: sum,
    R4: sum * (q * (2 + H) - 1),
    R5: sum,
    R6: R,
    R7: R,
    C1: C,
    C2: C,
  };
}

export const STATE_VARIABLE_WHY: readonly Why[] = [
  { of: 'R1', formula: '\\frac{@R3}{@H}', text: 'Brings the input to the summer.' },
  {
    of: 'R2 R3',

    text: 'Equal: the loop’s own frequency is then the integrators’.',
  },
  {
    of: 'R4',
    formula:
      '@R5\\left(@Q\\left(1 + \\frac{@R3}{@R1} + \\frac{@R3}{@R2}\\right)2\\pi @f0 @R6 @C1 - 1\\right)',
    text: 'Feeds the band output back as damping: it alone sets Q.',
  },
  { of: 'R5', text: 'Lower part of the damping divider.' },
  {
    of: 'R6 R7',
    formula: '\\frac{1}{2\\pi @f0 @C1}',
    text: 'The integrators turn at f0; a double potentiometer here sweeps it.',
  },
  { of: 'C1 C2', text: 'Equal capacitors, chosen first.' },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi}\\sqrt{\\frac{@R3}{@R2 @R6 @C1 @R7 @C2}}',
    text: 'Set by the integrators.',
  },
  {
    of: 'Q',
    formula:
      '\\frac{2\\pi @f0 @R6 @C1 (@R4 + @R5)}{@R5\\left(1 + \\frac{@R3}{@R1} + \\frac{@R3}{@R2}\\right)}',
    text: 'Set by the damping divider, without touching f0.',
    rule: 'Rule of thumb with equal parts and H = 1: Q = (1 + R4/R5) / 3.',
  },
];

const BASE = `in 0,6 / 0,6 1,6 / resistor R1 1,6 right / 5,6 8,6 / op-amp A1 8,6 minus
  6,6 6,3 7,3 / resistor R3 7,3 right / 11,3 13,3 13,7 / 12,7 15,7 / resistor R6 15,7 right / 19,7 21,7
  op-amp A2 21,7 minus / 21,9 21,11 / ground 21,11 / 20,7 20,3 21,3 / capacitor C1 21,3 right / 25,3 26,3 26,8
  25,8 28,8 / resistor R7 28,8 right / 32,8 34,8 / op-amp A3 34,8 minus / 34,10 34,12 / ground 34,12
  33,8 33,4 34,4 / capacitor C2 34,4 right / 38,4 39,4 39,9 / 38,9 42,9
  40,9 40,0 13,0 / resistor R2 9,0 right / 9,0 6,0 6,3
  27,8 27,14 20,14 / resistor R4 16,14 right / 16,14 8,14 8,8 / 8,14 8,15 / resistor R5 8,15 down left / ground 8,19`;

/** The loop with its output at one of its three places, or with a fourth op-amp summing high and low. */
export const STATE_VARIABLE_DRAWINGS = {
  low: `${BASE} / tap high 14,7 / tap band 27,8 / out 42,9 low`,
  band: `${BASE} / tap high 14,7 / tap low 42,9 / 27,8 27,1 30,1 / out 30,1 band`,
  high: `${BASE} / tap band 27,8 / tap low 42,9 / 14,7 14,-2 17,-2 / out 17,-2 high`,
  notch: `${BASE} / tap high 14,7 / tap band 27,8 / tap low 42,9
    14,7 14,17 44,17 / resistor R8 44,17 right / 48,17 50,17 50,9
    42,9 44,9 / resistor R9 44,9 right / 48,9 52,9 / op-amp A4 52,9 minus / 52,11 52,13 / ground 52,13
    51,9 51,5 52,5 / resistor R10 52,5 right / 56,5 58,5 58,10 / 56,10 61,10 / out 61,10 notch`,
} as const;

export const STATE_VARIABLE_BLOCKS: BlockDiagram = {
  row: [
    { text: '−H', parts: ['R1'] },
    { text: 'sum', out: 'high', parts: ['R3'] },
    { text: '−ω₀/s', out: 'band', parts: ['R6', 'C1'] },
    { text: '−ω₀/s', out: 'low', parts: ['R7', 'C2'] },
  ],
  back: [
    { from: 2, to: 1, text: '1/Q', parts: ['R4', 'R5'] },
    { from: 3, to: 1, text: '−1', parts: ['R2'] },
  ],
};

export const STATE_VARIABLE_ROLES = {
  R1: 'R/H',
  R2: 'R',
  R3: 'R',
  R4: '(Q(2+H)−1)·R',
  R5: 'R',
  R6: 'R₀',
  R7: 'R₀',
} as const;

export const STATE_VARIABLE_WORDS = {
  about:
    'A summer and two integrators chase each other round a loop. Frequency, Q and gain each have parts of their own, and three responses stand ready at once.',
  tuning: 'R6 and R7 together move f0, R4 moves Q, R1 the gain, each alone.',
  sensitivity:
    'The lowest of the active forms: half a per cent of f0 for one per cent of a part, Q never more than one to one.',
  avoid:
    'Three or four op-amps: for a low Q one is enough. Above f0 times Q of a tenth of the gain-bandwidth the Q rises by itself.',
} as const;
