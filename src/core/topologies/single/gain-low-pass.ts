import { lowPassFigures, lowPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { AMPLIFIER_WHY, whyF0 } from '../second-order-words';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

/** Feedback divider's resistor to ground; the other follows from the gain. */
const RG = 10_000;

export const gainLowPass: Topology = {
  id: 'gain-low-pass',
  family: 'gain',
  name: 'Second-order low-pass with gain',
  short: '2nd low-pass, gain',
  asWords: 'stages with gain',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'settable',
  limits: { q: [0.51, 12], gain: [1.02, 20] },
  // Where the gain is worth a divider, and the Q can be had beside it.
  suits: ({ q = 0, gainDb, sections }) => (gainDb > 0.3 * sections && q >= 0.51 ? 4 : 0),
  drawing: positiveFeedbackDrawing('low-pass', true),
  design(ask, choice) {
    // Without a gain of its own the stage keeps its parts equal, which takes K = 3 - 1/Q.
    const gain = ask.gain ?? 3 - 1 / (ask.q ?? 1);
    checkAsk(this, { ...ask, gain });
    return { ...lowPassValues(ask, gain, choice), RF: RG * (gain - 1), RG };
  },
  figures: lowPassFigures,
  explain(values) {
    const { R1, R2, C1, C2 } = values;
    const figures = lowPassFigures(values);
    const { q = 0, gain } = figures;
    const equal = Math.abs(R1 / R2 - 1) < 0.02 && Math.abs(C1 / C2 - 1) < 0.02;
    return because(values, figures, [
      {
        of: 'R1',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R2 @C1 @C2}',
        text: 'The corner sets the product of the resistors.',
      },
      {
        of: 'R2',
        formula: '\\frac{1}{2\\pi @f0 @Q @C2} - @R1\\left(1 + \\frac{@C1}{@C2} (1 - @gain)\\right)',
        text: equal
          ? 'Equal resistors and equal capacitors: the gain alone sets Q.'
          : 'The ratio of the resistors solves the damping equation.',
      },
      {
        of: 'C1',
        relation: '\\ge',
        formula: '\\frac{4 @C2}{\\frac{1}{@Q^2} + 4 (@gain - 1)}',
        text: 'Where the gain is high enough equal capacitors do; otherwise C1 must be larger.',
      },
      { of: 'C2', text: 'The capacitor started from, a common value.' },
      ...AMPLIFIER_WHY,
      whyF0(figures, 'low-pass'),
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@R1 @C2 + @R2 @C2 + @R1 @C1 (1 - @gain)}',
        text: 'Gain takes damping away: at K = 3 an equal-part stage oscillates.',
        rule: `Rule of thumb for equal parts: Q = 1/(3 − K) = ${gain < 3 ? (1 / (3 - gain)).toPrecision(4) : 'no longer stable'}; exact is ${q.toPrecision(4)}.`,
      },
    ]);
  },
  about:
    'A positive-feedback stage around an amplifier with gain. With equal resistors and equal capacitors one divider, RF and RG, sets the Q.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF trims Q (and the gain with it); both resistors R1 and R2 together move f0.',
  sensitivity: 'Q answers the gain with a factor of Q or more; f0 is calm.',
  avoid:
    'Q hangs on a difference: near K = 3 a one-percent error in RF moves Q by several percent. Use it up to Q of about 3.',
};
