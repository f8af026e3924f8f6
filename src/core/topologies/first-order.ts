import {
  startCapacitor,
  type Explanation,
  type StageAsk,
  type StageChoice,
  type Values,
} from './topology';
import { farads, hertz, ohms } from './tex';

/** R1 for the asked corner: f0 = 1 / (2 pi R1 C1). */
export function firstOrderValues(ask: StageAsk, choice?: StageChoice): Values {
  const C1 = startCapacitor(ask.f0Hz, choice);
  return { R1: 1 / (2 * Math.PI * ask.f0Hz * C1), C1 };
}

export function firstOrderCorner({ R1, C1 }: Values): number {
  return 1 / (2 * Math.PI * R1 * C1);
}

/** The formulas common to every one-resistor one-capacitor stage. */
export function explainFirstOrder(values: Values): Explanation[] {
  const { R1, C1 } = values;
  const f0 = firstOrderCorner(values);
  const thumb = 0.16 / (R1 * C1);
  return [
    {
      of: 'R1',
      formula: 'R_1 = \\frac{1}{2\\pi f_0 C_1}',
      numbers: `\\frac{1}{2\\pi \\cdot ${hertz(f0)} \\cdot ${farads(C1)}} = ${ohms(R1)}`,
      text: 'With the capacitor chosen, the resistor follows from the corner.',
    },
    {
      of: 'C1',
      formula: 'C_1 = \\frac{1}{2\\pi f_0 R_1}',
      numbers: `\\frac{1}{2\\pi \\cdot ${hertz(f0)} \\cdot ${ohms(R1)}} = ${farads(C1)}`,
      text: 'The starting capacitor: a common value that puts the resistor near 10 kΩ.',
    },
    {
      of: 'f0',
      formula: 'f_0 = \\frac{1}{2\\pi R_1 C_1}',
      numbers: `\\frac{1}{2\\pi \\cdot ${ohms(R1)} \\cdot ${farads(C1)}} = ${hertz(f0)}`,
      text: 'Here the level is 3.01 dB down and the phase has turned by 45 degrees.',
      rule: `Rule of thumb: 160 / (R in kΩ × C in µF) gives ${thumb.toPrecision(4)} Hz; exact is ${f0.toPrecision(4)} Hz.`,
    },
  ];
}
