import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because } from '../why';

/**
 * Two capacitors in the path, R1 from between them to ground, R2 bridging both:
 *   H = (1 + s R1 (C1+C2) + s^2 R1 R2 C1 C2) / (1 + s (R1 (C1+C2) + R2 C2) + s^2 R1 R2 C1 C2)
 */
function figures({ R1, R2, C1, C2 }: Values): StageFigures {
  const root = Math.sqrt(R1 * R2 * C1 * C2);
  const top = R1 * (C1 + C2);
  return {
    f0Hz: 1 / (TWO_PI * root),
    q: root / (top + R2 * C2),
    gain: 1,
    depth: top / (top + R2 * C2),
  };
}

export const bridgedT: Topology = {
  id: 'bridged-t',
  name: 'Bridged-T notch',
  short: 'RC notch, shallow',
  asWords: 'a bridged T',
  kind: 'notch',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  limits: { gain: [1, 1], depth: [0.02, 0.9] },
  drawing:
    sketch(`in 0,6 / 0,6 2,6 / capacitor C1 2,6 right / 6,6 8,6 / capacitor C2 8,6 right / 12,6 15,6 / out 15,6
    7,6 7,7 / resistor R1 7,7 down right / ground 7,11 / 1,6 1,2 5,2 / resistor R2 5,2 right / 9,2 13,2 13,6`),
  /** With equal capacitors the depth is 2 R1 / (2 R1 + R2). */
  design(ask, choice) {
    checkAsk(this, ask);
    const depth = ask.depth ?? 0.1;
    const ratio = (2 * (1 - depth)) / depth; // R2 / R1
    const C1 = startCapacitor(ask.f0Hz * Math.sqrt(ratio), choice);
    const R1 = 1 / (TWO_PI * ask.f0Hz * C1 * Math.sqrt(ratio));
    return { R1, R2: R1 * ratio, C1, C2: C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '\\frac{1}{(2\\pi @f0)^2 @R2 @C1 @C2}',
        text: 'The resistor to ground goes with the product, as the bridge does.',
      },
      {
        of: 'R2',
        formula: '\\frac{@R1 (@C1 + @C2)}{@C2}\\cdot\\frac{1-@depth}{@depth}',
        text: 'The wider apart the two resistors, the deeper the notch.',
      },
      {
        of: 'C1 C2',
        formula: '\\frac{1}{2\\pi @f0\\sqrt{@R1 @R2}}',
        text: 'Equal capacitors, chosen first.',
      },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C1 @C2}}',
        text: 'The bottom of the notch.',
      },
      {
        of: 'depth',
        formula: '\\frac{@R1 (@C1 + @C2)}{@R1 (@C1 + @C2) + @R2 @C2}',
        text: 'What is left at the bottom; it never reaches nothing.',
      },
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@R1 (@C1 + @C2) + @R2 @C2}',
        text: 'Deeper means broader: Q and depth are tied together.',
      },
    ]),
  about:
    'Signal through the capacitors and signal through the bridge nearly cancel at one frequency. Depth and width come from one ratio.',
  outputs: 'One, behind the bridge; do not load it with less than ten times R2.',
  tuning: 'R1 trims f0 and, a little, the depth.',
  sensitivity: 'f0 answers each part by half; the depth is forgiving.',
  avoid: 'It never cancels completely; use a twin-T or an active notch against a steady hum.',
};
