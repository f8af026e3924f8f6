import { multipleFeedbackDrawing } from './multiple-feedback-drawing';
import { positiveRoot } from './positive-feedback';
import { explainF0, together } from '../second-order-words';
import { farads, ohms, plain } from '../tex';
import {
  capacitorAtLeast,
  checkAsk,
  startCapacitor,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';

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
  name: 'Multiple-feedback low-pass',
  short: '2nd low-pass, inverting',
  asWords: 'inverting multiple-feedback stages',
  kind: 'low-pass',
  order: 2,
  opAmps: 1,
  gain: 'inverting',
  limits: { q: [0.3, 10], gain: [-20, -0.05] },
  drawing: multipleFeedbackDrawing({
    input: 'R1',
    series: 'R3',
    over: 'R2',
    around: 'C2',
    foot: 'C1',
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
    const { R1, R2, R3, C1, C2 } = values;
    const { q = 0, gain } = figures(values);
    const H = -gain;
    return [
      {
        of: 'R1',
        formula: 'R_1 = \\frac{R_2}{H}',
        numbers: `\\frac{${ohms(R2)}}{${plain(H)}} = ${ohms(R2 / H)}`,
        text: 'The input resistor sets the gain, and nearly the load on the source.',
      },
      ...together(
        ['R2', 'R3'],
        '(1+H)\\tfrac{R_3}{R_2} - \\tfrac{1}{Q}\\sqrt{\\tfrac{C_1 R_3}{C_2 R_2}} + 1 = 0',
        `R_2 = ${ohms(R2)},\\quad R_3 = ${ohms(R3)}`,
        'The ratio of the resistors solves the damping equation, their product the corner.',
      ),
      ...together(
        ['C1', 'C2'],
        'C_1 \\ge 4 Q^2 (1+H)\\, C_2',
        `${farads(C1)} \\ge ${plain(4 * q * q * (1 + H))}\\cdot${farads(C2)} = ${farads(4 * q * q * (1 + H) * C2)}`,
        'The capacitor to ground must be this much larger; C1 is the next common value above.',
      ),
      explainF0(values, figures(values), 'low-pass', ['R2', 'R3', 'C1', 'C2']),
      {
        of: 'Q',
        formula: 'Q = \\frac{\\sqrt{R_2 R_3 C_1 C_2}}{C_2\\,(R_2 + R_3 + R_2 R_3 / R_1)}',
        numbers: `Q = ${plain(q)}`,
        text: 'No difference of large numbers here: Q stays steady when parts drift.',
      },
      {
        of: 'gain',
        formula: 'H = -\\frac{R_2}{R_1}',
        numbers: `-\\frac{${ohms(R2)}}{${ohms(R1)}} = ${plain(-H)}`,
        text: 'The stage turns the polarity over.',
      },
    ];
  },
  about:
    'Two feedback ways into the inverting input. It keeps falling far above the op-amp’s bandwidth, because C1 shorts the signal to ground before it reaches the output.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'R1 sets the gain; scaling all three resistors moves f0 and keeps Q.',
  sensitivity: 'Low: no part moves Q by more than itself.',
  avoid:
    'It inverts, loads its source with R1, and needs widely spread capacitors when Q and gain are both high.',
};
