import { multipleFeedbackDrawing } from './multiple-feedback-drawing';
import { positiveRoot } from './positive-feedback';
import { whyF0 } from '../second-order-words';
import {
  capacitorAtLeast,
  checkAsk,
  startCapacitor,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';

/*
 * Multiple-feedback low-pass (R. Schaumann, M. E. Van Valkenburg, "Design of Analog Filters", 2001,
 * section 4.5; gain H = R2/R1, inverting):
 *   H(s) = -H / (s^2 R2 R3 C1 C2 + s C2 (R2 + R3 + R2 R3/R1) + 1)
 */
function figures({ R1, R2, R3, C1, C2 }: Values): StageFigures {
  const root = Math.sqrt(R2 * R3 * C1 * C2);
  return {
    f0Hz: 1 / (2 * Math.PI * root),
    q: root / (C2 * (R2 + R3 + (R2 * R3) / R1)),
    gain: -R2 / R1,
  };
}

export const multipleFeedbackLowPass: Topology = {
  id: 'multiple-feedback-low-pass',
  family: 'multiple-feedback',
  name: 'Multiple-feedback low-pass',
  short: '2nd low-pass, inverting',
  asWords: 'inverting multiple-feedback stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'inverting',
  limits: { q: [0.3, 10], gain: [-20, -0.05] },
  suits: ({ gainDb }) => (gainDb !== 0 ? 3 : 0),
  drawing: multipleFeedbackDrawing({
    input: 'resistor R1',
    series: 'resistor R3',
    over: 'resistor R2',
    around: 'capacitor C2',
    foot: 'capacitor C1',
  }),
  /**
   * With m = C1/C2 and x = sqrt(R3/R2) the damping reads (1+H) x^2 - sqrt(m)/Q x + 1 = 0, which has
   * a real root when m >= 4 Q^2 (1+H).
   */
  design(ask, choice) {
    const H = -(ask.gain ?? -1);
    checkAsk(this, { ...ask, gain: -H });
    const q = ask.q!;
    const C2 = startCapacitor(ask.f0Hz * 2 * q * Math.sqrt(1 + H), choice);
    const C1 = capacitorAtLeast(4 * q * q * (1 + H) * C2);
    const x = positiveRoot(1 + H, -Math.sqrt(C1 / C2) / q, 1)!;
    const root = 1 / (2 * Math.PI * ask.f0Hz * Math.sqrt(C1 * C2)); // sqrt(R2 R3)
    const R2 = root / x;
    return { R1: R2 / H, R2, R3: root * x, C1, C2 };
  },
  figures,
  explain(values) {
    const f = figures(values);
    return because(values, f, [
      {
        of: 'R1',
        formula: '-\\frac{@R2}{@gain}',
        text: 'The input resistor sets the gain, and nearly the load on the source.',
      },
      {
        of: 'R2',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R3 @C1 @C2}',
        text: 'The corner sets the product of R2 and R3.',
      },
      {
        of: 'R3',
        formula: '\\frac{\\frac{1}{2\\pi @f0 @Q @C2} - @R2}{1 + \\frac{@R2}{@R1}}',
        text: 'The ratio of R3 to R2 solves the damping equation.',
      },
      {
        of: 'C1',
        relation: '\\ge',
        formula: '4 @Q^2 (1 - @gain) @C2',
        text: 'The capacitor to ground must be this much larger; C1 is the next common value above.',
      },
      { of: 'C2', text: 'The capacitor started from, a common value.' },
      whyF0(f, 'low-pass', ['R2', 'R3', 'C1', 'C2']),
      {
        of: 'Q',
        formula:
          '\\frac{\\sqrt{@R2 @R3 @C1 @C2}}{@C2 \\left(@R2 + @R3 + \\frac{@R2 @R3}{@R1}\\right)}',
        text: 'No difference of large numbers here: Q stays steady when parts drift.',
      },
      {
        of: 'gain',
        formula: '-\\frac{@R2}{@R1}',
        text: 'The stage turns the polarity over.',
      },
    ]);
  },
  about:
    'Two feedback ways into the inverting input. It keeps falling far above the op-amp’s bandwidth, because C1 shorts the signal to ground before it reaches the output.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'R1 sets the gain; scaling all three resistors moves f0 and keeps Q.',
  sensitivity: 'Low: no part moves Q by more than itself.',
  avoid:
    'It inverts, loads its source with R1, and needs widely spread capacitors when Q and gain are both high.',
};
