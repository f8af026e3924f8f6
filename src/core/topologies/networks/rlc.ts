import {
  TWO_PI,
  type StageAsk,
  type StageChoice,
  type StageFigures,
  type Values,
} from '../topology';
import type { Why } from '../why';

/*
 * One coil, one capacitor and one resistor in a row: whatever the output is taken across, the
 * denominator is 1 + s R C + s^2 L C.
 */

/** @returns f0 and Q of the series circuit, at unity gain */
export function rlcFigures({ R1, L1, C1 }: Values): StageFigures {
  return {
    f0Hz: 1 / (TWO_PI * Math.sqrt(L1 * C1)),
    q: Math.sqrt(L1 / C1) / R1,
    gain: 1,
  };
}

/** Values from the capacitor where one is chosen, otherwise from the resistor (1 kΩ). */
export function rlcValues({ f0Hz, q }: StageAsk, choice?: StageChoice): Values {
  const w0 = TWO_PI * f0Hz;
  const C1 = choice?.farads ?? 1 / (q! * w0 * (choice?.ohms ?? 1000));
  return { R1: 1 / (q! * w0 * C1), L1: 1 / (w0 * w0 * C1), C1 };
}

export const RLC_WHY: readonly Why[] = [
  {
    of: 'L1',
    formula: '\\frac{1}{(2\\pi @f0)^2 @C1}',
    text: 'Coil and capacitor have equal reactances at f0.',
  },
  {
    of: 'C1',
    formula: '\\frac{1}{2\\pi @f0 @Q @R1}',
    text: 'The capacitor follows from the resistor and Q, or is chosen first.',
  },
  {
    of: 'R1',
    formula: '\\frac{1}{@Q}\\sqrt{\\frac{@L1}{@C1}}',
    text: 'The resistor damps: the coil’s own resistance and the source’s count with it.',
    rule: 'Rule of thumb: put R1 in as it is. Exact: R1 is the sum of source, coil and resistor.',
  },
  {
    of: 'f0',
    formula: '\\frac{1}{2\\pi\\sqrt{@L1 @C1}}',
    text: 'The resonance of coil and capacitor; the resistor does not move it.',
  },
  {
    of: 'Q',
    formula: '\\frac{1}{@R1}\\sqrt{\\frac{@L1}{@C1}}',
    text: 'Reactance over resistance.',
  },
];
