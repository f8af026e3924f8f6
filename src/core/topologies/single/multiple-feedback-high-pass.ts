import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';
import { multipleFeedbackDrawing } from './multiple-feedback-drawing';

/**
 * H = -(C1/C3) s^2 / (s^2 + s (C1+C2+C3)/(R2 C2 C3) + 1/(R1 R2 C2 C3))
 * (Schaumann and Van Valkenburg, "Design of Analog Filters", 2001, section 4.5)
 */
function figures({ R1, R2, C1, C2, C3 }: Values): StageFigures {
  const w0 = 1 / Math.sqrt(R1 * R2 * C2 * C3);
  return { f0Hz: w0 / TWO_PI, q: (w0 * R2 * C2 * C3) / (C1 + C2 + C3), gain: -C1 / C3 };
}

export const multipleFeedbackHighPass: Topology = {
  id: 'multiple-feedback-high-pass',
  family: 'multiple-feedback',
  name: 'Multiple-feedback high-pass',
  short: '2nd high-pass, inverting',
  asWords: 'inverting multiple-feedback stages',
  kind: 'high-pass',
  order: 2,
  opAmps: 1,
  gain: 'inverting',
  limits: { q: [0.3, 10], gain: [-20, -0.05] },
  suits: ({ gainDb }) => (gainDb !== 0 ? 3 : 0),
  drawing: multipleFeedbackDrawing({
    input: 'capacitor C1',
    series: 'capacitor C2',
    over: 'capacitor C3',
    around: 'resistor R2',
    foot: 'resistor R1',
  }),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const w0 = TWO_PI * ask.f0Hz;
    const C1 = startCapacitor(ask.f0Hz, choice);
    const C3 = C1 / -gain;
    const R2 = (ask.q! * (2 * C1 + C3)) / (w0 * C1 * C3);
    return { R1: 1 / (w0 * w0 * R2 * C1 * C3), R2, C1, C2: C1, C3 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R2 @C2 @C3}',
        text: 'The small resistor to ground: it trims f0.',
      },
      {
        of: 'R2',
        formula: '\\frac{@Q (@C1 + @C2 + @C3)}{2\\pi @f0 @C2 @C3}',
        text: 'The large resistor sets the damping.',
      },
      { of: 'C1', formula: '-@gain @C3', text: 'Input capacitor; with C3 it sets the gain.' },
      { of: 'C2', text: 'Kept equal to C1.' },
      { of: 'C3', formula: '-\\frac{@C1}{@gain}', text: 'Feedback capacitor.' },
      { of: 'f0', formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C2 @C3}}', text: 'The corner.' },
      {
        of: 'Q',
        formula: '2\\pi @f0\\frac{@R2 @C2 @C3}{@C1 + @C2 + @C3}',
        text: 'No difference of large numbers: Q stays steady when parts drift.',
      },
      { of: 'gain', formula: '-\\frac{@C1}{@C3}', text: 'A ratio of capacitors.' },
    ]),
  about: 'The multiple-feedback stage with resistors and capacitors changed over.',
  outputs: 'The op-amp’s output, inverted.',
  tuning: 'R1 trims f0, R2 trims Q (and f0).',
  sensitivity: 'Low for f0 and Q; the gain follows two capacitors.',
  avoid:
    'C1 and C3 in a row are a short at high frequencies: source and op-amp must drive them, and noise rises there.',
};
