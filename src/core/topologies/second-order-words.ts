import type { StageFigures } from './topology';
import type { Why } from './why';

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
export function whyF0(
  figures: StageFigures,
  kind: 'low-pass' | 'high-pass',
  parts = ['R1', 'R2', 'C1', 'C2'],
): Why {
  const edge = halfPowerHz(figures, kind);
  return {
    of: 'f0',
    formula: `\\frac{1}{2\\pi\\sqrt{${parts.map((p) => `@${p}`).join(' ')}}}`,
    text: 'The frequency at which the phase has turned by 90 degrees and the level is Q times the gain.',
    rule: `Rule of thumb: f0 is the edge. Exact: the level is 3.01 dB down at ${edge.toPrecision(4)} Hz, and equals f0 only for Q = 0.707.`,
  };
}

const DIVIDER_TEXT =
  'The divider from output to the inverting input sets the gain inside the loop, and with it Q.';

/** The divider around an amplifier of gain K. */
export const AMPLIFIER_WHY: readonly Why[] = [
  { of: 'RF', formula: '(@gain - 1) @RG', text: DIVIDER_TEXT },
  { of: 'RG', formula: '\\frac{@RF}{@gain - 1}', text: DIVIDER_TEXT },
  { of: 'gain', formula: '1 + \\frac{@RF}{@RG}', text: DIVIDER_TEXT },
];
