import { lowPassFigures, lowPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { explainAmplifier, explainF0, together } from '../second-order-words';
import { farads, ohms, plain } from '../tex';
import { checkAsk, type Topology } from '../topology';

/** Feedback divider's resistor to ground; the other follows from the gain. */
const RG = 10_000;

export const gainLowPass: Topology = {
  id: 'gain-low-pass',
  name: 'Second-order low-pass with gain',
  short: '2nd low-pass, gain',
  asWords: 'stages with gain',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'settable',
  limits: { q: [0.51, 12], gain: [1.02, 20] },
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
    const [q, gain] = [figures.q!, figures.gain];
    const equal = Math.abs(R1 / R2 - 1) < 0.02 && Math.abs(C1 / C2 - 1) < 0.02;
    return [
      ...together(
        ['R1', 'R2'],
        '\\left(1 + \\tfrac{C_1}{C_2}(1-K)\\right)\\tfrac{R_1}{R_2} - \\tfrac{1}{Q}\\sqrt{\\tfrac{C_1 R_1}{C_2 R_2}} + 1 = 0',
        `R_1 = ${ohms(R1)},\\quad R_2 = ${ohms(R2)}`,
        equal
          ? 'Equal resistors and equal capacitors: the gain alone sets Q.'
          : 'The ratio of the resistors solves the damping equation, their product the corner.',
      ),
      ...together(
        ['C1', 'C2'],
        '\\frac{C_1}{C_2} \\ge \\frac{4}{1/Q^2 + 4(K-1)}',
        `\\frac{${farads(C1)}}{${farads(C2)}} \\ge ${plain(4 / (1 / q ** 2 + 4 * (gain - 1)))}`,
        'Where the gain is high enough equal capacitors do; otherwise C1 must be larger.',
      ),
      ...explainAmplifier(values, gain),
      explainF0(values, figures, 'low-pass'),
      {
        of: 'Q',
        formula: 'Q = \\frac{\\sqrt{R_1 R_2 C_1 C_2}}{R_1 C_2 + R_2 C_2 + R_1 C_1 (1-K)}',
        numbers: `Q = ${plain(q)}\\quad (K = ${plain(gain)})`,
        text: 'Gain takes damping away: at K = 3 an equal-part stage oscillates.',
        rule: `Rule of thumb for equal parts: Q = 1/(3 − K) = ${gain < 3 ? (1 / (3 - gain)).toPrecision(4) : 'no longer stable'}; exact is ${q.toPrecision(4)}.`,
      },
    ];
  },
  about:
    'A positive-feedback stage around an amplifier with gain. With equal resistors and equal capacitors one divider, RF and RG, sets the Q.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF trims Q (and the gain with it); both resistors R1 and R2 together move f0.',
  sensitivity: 'Q answers the gain with a factor of Q or more; f0 is calm.',
  avoid:
    'Q hangs on a difference: near K = 3 a one-percent error in RF moves Q by several percent. Use it up to Q of about 3.',
};
