import { highPassFigures, highPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { explainAmplifier, explainF0, together } from '../second-order-words';
import { farads, ohms, plain } from '../tex';
import { checkAsk, type Topology } from '../topology';

/** Feedback divider's resistor to ground; the other follows from the gain. */
const RG = 10_000;

export const gainHighPass: Topology = {
  id: 'gain-high-pass',
  name: 'Second-order high-pass with gain',
  short: '2nd high-pass, gain',
  asWords: 'stages with gain',
  kind: 'high-pass',
  order: 2,
  opAmps: 1,
  gain: 'settable',
  limits: { q: [0.51, 12], gain: [1.02, 20] },
  drawing: positiveFeedbackDrawing('high-pass', true),
  design(ask, choice) {
    const gain = ask.gain ?? 3 - 1 / (ask.q ?? 1);
    checkAsk(this, { ...ask, gain });
    return { ...highPassValues(ask, gain, choice), RF: RG * (gain - 1), RG };
  },
  figures: highPassFigures,
  explain(values) {
    const { R1, R2, C1, C2 } = values;
    const figures = highPassFigures(values);
    const [q, gain] = [figures.q!, figures.gain];
    return [
      ...together(
        ['R1', 'R2'],
        '(K-1)\\tfrac{R_2}{R_1} + \\tfrac{1}{Q}\\sqrt{\\tfrac{R_2}{R_1}} - 2 = 0',
        `R_1 = ${ohms(R1)},\\quad R_2 = ${ohms(R2)}`,
        'With equal capacitors the ratio of the resistors solves the damping equation, their product the corner.',
      ),
      ...together(
        ['C1', 'C2'],
        'C_1 = C_2 = C',
        `${farads(C1)},\\quad ${farads(C2)}`,
        'Equal capacitors, chosen so that the resistors come out near 10 kΩ.',
      ),
      ...explainAmplifier(values, gain),
      explainF0(values, figures, 'high-pass'),
      {
        of: 'Q',
        formula:
          '\\frac{1}{Q} = \\sqrt{R_1 R_2 C_1 C_2}\\left(\\frac{1}{R_2 C_1} + \\frac{1}{R_2 C_2} + \\frac{1-K}{R_1 C_1}\\right)',
        numbers: `Q = ${plain(q)}\\quad (K = ${plain(gain)})`,
        text: 'Gain takes damping away: at K = 3 an equal-part stage oscillates.',
        rule: `Rule of thumb for equal parts: Q = 1/(3 − K) = ${gain < 3 ? (1 / (3 - gain)).toPrecision(4) : 'no longer stable'}; exact is ${q.toPrecision(4)}.`,
      },
    ];
  },
  about:
    'The positive-feedback high-pass around an amplifier with gain. With equal parts one divider, RF and RG, sets the Q.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF trims Q (and the gain with it); R1 and R2 together move f0.',
  sensitivity: 'Q answers the gain with a factor of Q or more; f0 is calm.',
  avoid:
    'Q hangs on a difference: near K = 3 a one-percent error in RF moves Q by several percent. Use it up to Q of about 3.',
};
