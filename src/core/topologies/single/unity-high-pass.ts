import { highPassFigures, highPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { whyF0 } from '../second-order-words';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

export const unityHighPass: Topology = {
  id: 'unity-high-pass',
  family: 'unity',
  name: 'Unity-gain second-order high-pass',
  short: '2nd high-pass',
  asWords: 'unity-gain stages',
  kind: 'high-pass',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  limits: { q: [0.3, 12], gain: [1, 1] },
  suits: () => 2,
  drawing: positiveFeedbackDrawing('high-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return highPassValues(ask, 1, choice);
  },
  figures: highPassFigures,
  explain(values) {
    const figures = highPassFigures(values);
    const { R1, R2 } = values;
    return because(values, figures, [
      {
        of: 'R1',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R2 @C1 @C2}',
        text: 'The fed-back resistor; with equal capacitors it is the smaller one, R2 over 4 Q².',
      },
      {
        of: 'R2',
        formula: '\\frac{@Q}{2\\pi @f0}\\left(\\frac{1}{@C1} + \\frac{1}{@C2}\\right)',
        text: 'The resistor to ground also carries the op-amp’s bias current.',
      },
      {
        of: 'C1 C2',
        text: 'Equal capacitors are easiest to match; the value is chosen so that the resistors come out near 10 kΩ.',
      },
      whyF0(figures, 'high-pass'),
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@R1 (@C1 + @C2)}',
        text: 'With equal capacitors Q is half the root of the resistors’ ratio.',
        rule: `Rule of thumb for equal capacitors: Q = ½ √(R2/R1) = ${(0.5 * Math.sqrt(R2 / R1)).toPrecision(4)}; exact is ${figures.q!.toPrecision(4)}.`,
      },
    ]);
  },
  about:
    'The low-pass with resistors and capacitors changed over: R1 feeds the output back and holds the level up just above the corner.',
  outputs: 'The op-amp’s output.',
  tuning: 'Scale both resistors to move f0 and keep Q; the ratio R2/R1 sets Q.',
  sensitivity: 'Low: one per cent of any part moves f0 and Q by half a per cent or less.',
  avoid:
    'At high frequencies the source drives C1 and C2 in series with R1: do not hang it on a weak source.',
};
