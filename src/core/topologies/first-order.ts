import {
  startCapacitor,
  type Explanation,
  type StageAsk,
  type StageChoice,
  type Values,
} from './topology';
import { because } from './why';

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
  const f0Hz = firstOrderCorner(values);
  const thumb = 0.16 / (values.R1 * values.C1);
  return because(values, { f0Hz, gain: 1 }, [
    {
      of: 'R1',
      formula: '\\frac{1}{2\\pi @f0 @C1}',
      text: 'With the capacitor chosen, the resistor follows from the corner.',
    },
    {
      of: 'C1',
      formula: '\\frac{1}{2\\pi @f0 @R1}',
      text: 'The starting capacitor: a common value that puts the resistor near 10 kΩ.',
    },
    {
      of: 'f0',
      formula: '\\frac{1}{2\\pi @R1 @C1}',
      text: 'Here the level is 3.01 dB down and the phase has turned by 45 degrees.',
      rule: `Rule of thumb: 160 / (R in kΩ × C in µF) gives ${thumb.toPrecision(4)} Hz; exact is ${f0Hz.toPrecision(4)} Hz.`,
    },
  ]);
}
