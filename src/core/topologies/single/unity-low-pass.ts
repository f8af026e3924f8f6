import { lowPassFigures, lowPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { explainF0, together } from '../second-order-words';
import { farads, ohms, plain } from '../tex';
import { checkAsk, type Topology } from '../topology';

export const unityLowPass: Topology = {
  id: 'unity-low-pass',
  name: 'Unity-gain second-order low-pass',
  short: '2nd low-pass',
  asWords: 'unity-gain stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  limits: { q: [0.3, 12], gain: [1, 1] },
  drawing: positiveFeedbackDrawing('low-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return lowPassValues(ask, 1, choice);
  },
  figures: lowPassFigures,
  explain(values) {
    const { R1, R2, C1, C2 } = values;
    const figures = lowPassFigures(values);
    const q = figures.q!;
    return [
      ...together(
        ['R1', 'R2'],
        'R_{1,2} = \\frac{1}{4\\pi f_0 Q C_2}\\left(1 \\mp \\sqrt{1 - 4 Q^2 \\frac{C_2}{C_1}}\\right)',
        `R_1 = ${ohms(R1)},\\quad R_2 = ${ohms(R2)}`,
        'With both capacitors chosen the two resistors are the roots of one quadratic equation; they may change places.',
      ),
      ...together(
        ['C1', 'C2'],
        'C_1 \\ge 4 Q^2 C_2',
        `${farads(C1)} \\ge 4 \\cdot ${plain(q)}^2 \\cdot ${farads(C2)} = ${farads(4 * q * q * C2)}`,
        'The fed-back capacitor must be this much larger, or no resistors give the Q. C1 is the next common value above.',
      ),
      explainF0(values, figures, 'low-pass'),
      {
        of: 'Q',
        formula: 'Q = \\frac{\\sqrt{R_1 R_2 C_1 C_2}}{C_2 (R_1 + R_2)}',
        numbers: `\\frac{\\sqrt{${ohms(R1)}\\cdot${ohms(R2)}\\cdot${farads(C1)}\\cdot${farads(C2)}}}{${farads(C2)}\\cdot(${ohms(R1)}+${ohms(R2)})} = ${plain(q)}`,
        text: 'Q depends on ratios only, so equal drifts of all parts leave it alone.',
        rule: `Rule of thumb for equal resistors: Q = ½ √(C1/C2) = ${(0.5 * Math.sqrt(C1 / C2)).toPrecision(4)}; exact is ${q.toPrecision(4)}.`,
      },
    ];
  },
  about:
    'A follower feeds its output back through C1, which props up the level just before the corner. Below the corner nothing but the op-amp’s precision sets the gain: exactly one.',
  outputs: 'The op-amp’s output.',
  tuning: 'Scale both resistors to move f0 and keep Q; the ratio C1/C2 sets the highest Q.',
  sensitivity: 'Low: one per cent of any part moves f0 and Q by half a per cent or less.',
  avoid:
    'Above Q of about 4 the capacitors grow far apart. Far above the op-amp’s bandwidth C1 lets the signal through again.',
};
