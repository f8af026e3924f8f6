import { farads, hertz, ohms, plain } from './tex';
import type { Explanation, StageFigures, Values } from './topology';

/** Frequency at which a second-order section is 3.01 dB below its plateau, from f0 and Q. */
export function halfPowerHz(
  { f0Hz, q = Math.SQRT1_2 }: StageFigures,
  kind: 'low-pass' | 'high-pass',
): number {
  const b = 1 - 1 / (2 * q * q);
  const x = Math.sqrt(b + Math.sqrt(b * b + 1));
  return kind === 'low-pass' ? f0Hz * x : f0Hz / x;
}

/** f0 of any stage with two resistors and two capacitors, and how it differs from the -3 dB edge. */
export function explainF0(
  values: Values,
  figures: StageFigures,
  kind: 'low-pass' | 'high-pass',
  parts = ['R1', 'R2', 'C1', 'C2'],
): Explanation {
  const [ra, rb, ca, cb] = parts;
  const name = (id: string) => `${id[0]}_${id.slice(1)}`;
  const edge = halfPowerHz(figures, kind);
  return {
    of: 'f0',
    formula: `f_0 = \\frac{1}{2\\pi\\sqrt{${parts.map(name).join(' ')}}}`,
    numbers: `\\frac{1}{2\\pi\\sqrt{${ohms(values[ra])}\\cdot${ohms(values[rb])}\\cdot${farads(values[ca])}\\cdot${farads(values[cb])}}} = ${hertz(figures.f0Hz)}`,
    text: 'The frequency at which the phase has turned by 90 degrees and the level is Q times the gain.',
    rule: `Rule of thumb: f0 is the edge. Exact: the level is 3.01 dB down at ${edge.toPrecision(4)} Hz, and equals f0 only for Q = 0.707.`,
  };
}

export function explainAmplifier(values: Values, gain: number): Explanation[] {
  const { RF, RG } = values;
  const numbers = `1 + \\frac{${ohms(RF)}}{${ohms(RG)}} = ${plain(gain)}`;
  const text =
    'The divider from output to the inverting input sets the gain inside the loop, and with it Q.';
  return ['RF', 'RG', 'gain'].map((of) => ({
    of,
    formula: 'K = 1 + \\frac{R_F}{R_G}',
    numbers,
    text,
  }));
}

/** An explanation shared by several parts that are found together. */
export function together(
  parts: string[],
  formula: string,
  numbers: string,
  text: string,
): Explanation[] {
  return parts.map((of) => ({ of, formula, numbers, text }));
}
