import { lowPassFigures, lowPassValues } from './positive-feedback';
import { positiveFeedbackDrawing } from './positive-feedback-drawing';
import { whyF0 } from '../second-order-words';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

export const unityLowPass: Topology = {
  id: 'unity-low-pass',
  family: 'unity',
  name: 'Unity-gain second-order low-pass',
  short: '2nd low-pass',
  asWords: 'unity-gain stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  limits: { q: [0.3, 12], gain: [1, 1] },
  suits: () => 2,
  drawing: positiveFeedbackDrawing('low-pass', false),
  design(ask, choice) {
    checkAsk(this, ask);
    return lowPassValues(ask, 1, choice);
  },
  figures: lowPassFigures,
  explain(values) {
    const figures = lowPassFigures(values);
    const { C1, C2 } = values;
    return because(values, figures, [
      {
        of: 'R1',
        formula: '\\frac{1}{2\\pi @f0 @Q @C2} - @R2',
        text: 'With both capacitors chosen the two resistors are the roots of one quadratic equation: Q sets their sum. They may change places.',
      },
      {
        of: 'R2',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R1 @C1 @C2}',
        text: 'The corner sets the product of the resistors.',
      },
      {
        of: 'C1',
        relation: '\\ge',
        formula: '4 @Q^2 @C2',
        text: 'The fed-back capacitor must be this much larger, or no resistors give the Q. C1 is the next common value above.',
      },
      { of: 'C2', text: 'The capacitor started from, a common value.' },
      whyF0(figures, 'low-pass'),
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@C2 (@R1 + @R2)}',
        text: 'Q depends on ratios only, so equal drifts of all parts leave it alone.',
        rule: `Rule of thumb for equal resistors: Q = ½ √(C1/C2) = ${(0.5 * Math.sqrt(C1 / C2)).toPrecision(4)}; exact is ${figures.q!.toPrecision(4)}.`,
      },
    ]);
  },
  about:
    'A follower feeds its output back through C1, which props up the level just before the corner. Below the corner nothing but the op-amp’s precision sets the gain: exactly one.',
  outputs: 'The op-amp’s output.',
  tuning: 'Scale both resistors to move f0 and keep Q; the ratio C1/C2 sets the highest Q.',
  sensitivity: 'Low: one per cent of any part moves f0 and Q by half a per cent or less.',
  avoid:
    'Above Q of about 4 the capacitors grow far apart. Far above the op-amp’s bandwidth C1 lets the signal through again.',
};
