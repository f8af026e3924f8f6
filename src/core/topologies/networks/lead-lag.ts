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
 * R1 with C1 across it in the path, R2 in series with C2 to ground:
 *   H = (1 + s R1 C1)(1 + s R2 C2) / ((1 + s R1 C1)(1 + s R2 C2) + s R1 C2)
 */
function figures({ R1, R2, C1, C2 }: Values): StageFigures {
  const root = Math.sqrt(R1 * R2 * C1 * C2);
  const top = R1 * C1 + R2 * C2;
  return {
    f0Hz: 1 / (TWO_PI * root),
    q: root / (top + R1 * C2),
    gain: 1,
    depth: top / (top + R1 * C2),
  };
}

export const leadLag: Topology = {
  id: 'lead-lag',
  name: 'Lead-lag network',
  short: 'RC dip',
  asWords: 'a lead-lag network',
  kind: 'notch',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  limits: { gain: [1, 1], depth: [0.02, 0.9] },
  drawing: sketch(`in 0,6 / 0,6 4,6 / resistor R1 4,6 right / 8,6 15,6 / out 15,6
    2,6 2,2 4,2 / capacitor C1 4,2 right / 8,2 10,2 10,6
    12,6 12,7 / resistor R2 12,7 down right / 12,11 12,12 / capacitor C2 12,12 down right / ground 12,16`),
  /** Both time constants at f0; the depth is then 2 / (2 + R1/R2). */
  design(ask, choice) {
    checkAsk(this, ask);
    const depth = ask.depth ?? 0.1;
    const ratio = (2 * (1 - depth)) / depth; // R1 / R2
    const C2 = startCapacitor(ask.f0Hz, choice);
    const R2 = 1 / (TWO_PI * ask.f0Hz * C2);
    return { R1: R2 * ratio, R2, C1: C2 / ratio, C2 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '@R2\\cdot\\frac{2(1-@depth)}{@depth}',
        text: 'The ratio of the resistors sets how much is left at the bottom.',
      },
      { of: 'R2', formula: '\\frac{1}{2\\pi @f0 @C2}', text: 'The lower branch turns at f0.' },
      { of: 'C1', formula: '\\frac{1}{2\\pi @f0 @R1}', text: 'The upper branch turns at f0 too.' },
      { of: 'C2', formula: '\\frac{1}{2\\pi @f0 @R2}', text: 'The capacitor started from.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C1 @C2}}',
        text: 'The bottom of the dip.',
      },
      {
        of: 'depth',
        formula: '\\frac{@R1 @C1 + @R2 @C2}{@R1 @C1 + @R2 @C2 + @R1 @C2}',
        text: 'What is left at the bottom.',
      },
    ]),
  about:
    'At low frequencies the output lags, at high ones it leads; in between it is simply divided down, in phase. Loops are steadied with it.',
  outputs: 'One, at the meeting of both branches.',
  tuning: 'R2 and C2 set where it dips, R1 how far.',
  sensitivity: 'Each part moves f0 by half its own error; the depth follows R1/R2.',
  avoid: 'Not a notch: it cannot cancel.',
};
