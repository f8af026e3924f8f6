import { highPassFigures, highPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { explainF0, together } from '../second-order-words';
import { farads, hertz, ohms, plain } from '../tex';
import { checkAsk, type Topology } from '../topology';

export const unityHighPass: Topology = {
  id: 'unity-high-pass',
  name: 'Unity-gain second-order high-pass',
  short: '2nd high-pass',
  asWords: 'unity-gain stages',
  kind: 'high-pass',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  limits: { q: [0.3, 12], gain: [1, 1] },
  drawing: positiveFeedbackDrawing('high-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return highPassValues(ask, 1, choice);
  },
  figures: highPassFigures,
  explain(values) {
    const { R1, R2, C1, C2 } = values;
    const figures = highPassFigures(values);
    const [f0, q] = [figures.f0Hz, figures.q!];
    return [
      {
        of: 'R1',
        formula: 'R_1 = \\frac{1}{4\\pi f_0 Q C}',
        numbers: `\\frac{1}{4\\pi\\cdot${hertz(f0)}\\cdot${plain(q)}\\cdot${farads(C1)}} = ${ohms(1 / (4 * Math.PI * f0 * q * C1))}`,
        text: 'The fed-back resistor; with equal capacitors it is the smaller one.',
      },
      {
        of: 'R2',
        formula: 'R_2 = \\frac{Q}{\\pi f_0 C} = 4 Q^2 R_1',
        numbers: `4\\cdot${plain(q)}^2\\cdot${ohms(R1)} = ${ohms(4 * q * q * R1)}`,
        text: 'The resistor to ground also carries the op-amp’s bias current.',
      },
      ...together(
        ['C1', 'C2'],
        'C_1 = C_2 = C',
        `${farads(C1)},\\quad ${farads(C2)}`,
        'Equal capacitors are easiest to match; the value is chosen so that the resistors come out near 10 kΩ.',
      ),
      explainF0(values, figures, 'high-pass'),
      {
        of: 'Q',
        formula: 'Q = \\frac{\\sqrt{R_1 R_2 C_1 C_2}}{R_1 (C_1 + C_2)}',
        numbers: `\\frac{\\sqrt{${ohms(R1)}\\cdot${ohms(R2)}\\cdot${farads(C1)}\\cdot${farads(C2)}}}{${ohms(R1)}\\cdot(${farads(C1)}+${farads(C2)})} = ${plain(q)}`,
        text: 'With equal capacitors Q is half the root of the resistors’ ratio.',
        rule: `Rule of thumb for equal capacitors: Q = ½ √(R2/R1) = ${(0.5 * Math.sqrt(R2 / R1)).toPrecision(4)}; exact is ${q.toPrecision(4)}.`,
      },
    ];
  },
  about:
    'The low-pass with resistors and capacitors changed over: R1 feeds the output back and holds the level up just above the corner.',
  outputs: 'The op-amp’s output.',
  tuning: 'Scale both resistors to move f0 and keep Q; the ratio R2/R1 sets Q.',
  sensitivity: 'Low: one per cent of any part moves f0 and Q by half a per cent or less.',
  avoid:
    'At high frequencies the source drives C1 and C2 in series with R1: do not hang it on a weak source.',
};
