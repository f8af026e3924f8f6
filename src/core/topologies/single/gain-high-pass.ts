import { highPassFigures, highPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { AMPLIFIER_WHY, whyF0 } from '../second-order-words';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

/** Feedback divider's resistor to ground; the other follows from the gain. */
const RG = 10_000;

export const gainHighPass: Topology = {
  id: 'gain-high-pass',
  family: 'gain',
  name: 'Second-order high-pass with gain',
  short: '2nd high-pass, gain',
  asWords: 'stages with gain',
  kind: 'high-pass',
  order: 2,
  opAmps: 1,
  gain: 'settable',
  limits: { q: [0.51, 12], gain: [1.02, 20] },
  // Where the gain is worth a divider, and the Q can be had beside it.
  suits: ({ q = 0, gainDb, sections }) => (gainDb > 0.3 * sections && q >= 0.51 ? 4 : 0),
  drawing: positiveFeedbackDrawing('high-pass', true),
  design(ask, choice) {
    const gain = ask.gain ?? 3 - 1 / (ask.q ?? 1);
    checkAsk(this, { ...ask, gain });
    return { ...highPassValues(ask, gain, choice), RF: RG * (gain - 1), RG };
  },
  figures: highPassFigures,
  explain(values) {
    const figures = highPassFigures(values);
    const { q = 0, gain } = figures;
    return because(values, figures, [
      {
        of: 'R1',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R2 @C1 @C2}',
        text: 'The corner sets the product of the resistors.',
      },
      {
        of: 'R2',
        formula:
          '\\frac{\\frac{1}{@C1} + \\frac{1}{@C2}}{\\frac{2\\pi @f0}{@Q} + \\frac{@gain - 1}{@R1 @C1}}',
        text: 'The ratio of the resistors solves the damping equation.',
      },
      {
        of: 'C1 C2',
        text: 'Equal capacitors, chosen so that the resistors come out near 10 kΩ.',
      },
      ...AMPLIFIER_WHY,
      whyF0(figures, 'high-pass'),
      {
        of: 'Q',
        formula:
          '\\frac{1}{\\sqrt{@R1 @R2 @C1 @C2}\\left(\\frac{1}{@R2 @C1} + \\frac{1}{@R2 @C2} + \\frac{1 - @gain}{@R1 @C1}\\right)}',
        text: 'Gain takes damping away: at K = 3 an equal-part stage oscillates.',
        rule: `Rule of thumb for equal parts: Q = 1/(3 − K) = ${gain < 3 ? (1 / (3 - gain)).toPrecision(4) : 'no longer stable'}; exact is ${q.toPrecision(4)}.`,
      },
    ]);
  },
  about:
    'The positive-feedback high-pass around an amplifier with gain. With equal parts one divider, RF and RG, sets the Q.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF trims Q (and the gain with it); R1 and R2 together move f0.',
  sensitivity: 'Q answers the gain with a factor of Q or more; f0 is calm.',
  avoid:
    'Q hangs on a difference: near K = 3 a one-percent error in RF moves Q by several percent. Use it up to Q of about 3.',
};
