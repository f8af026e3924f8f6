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
 * Series R1 C1 into parallel R2 C2:
 *   H = s R2 C1 / (1 + s (R1 C1 + R2 C2 + R2 C1) + s^2 R1 R2 C1 C2)
 */
function figures({ R1, R2, C1, C2 }: Values): StageFigures {
  const root = Math.sqrt(R1 * R2 * C1 * C2);
  const sum = R1 * C1 + R2 * C2 + R2 * C1;
  return { f0Hz: 1 / (TWO_PI * root), q: root / sum, gain: (R2 * C1) / sum };
}

export const wienBand: Topology = {
  id: 'wien-band',
  name: 'Wien band network',
  short: 'RC band-pass',
  asWords: 'a Wien network',
  kind: 'band-pass',
  order: 2,
  opAmps: 0,
  gain: 'given',
  limits: { q: [1 / 3, 1 / 3], gain: [1 / 3, 1 / 3] },
  drawing:
    sketch(`in 0,2 / 0,2 1,2 / resistor R1 1,2 right / 5,2 6,2 / capacitor C1 6,2 right / 10,2 19,2 / out 19,2
    12,2 12,3 / resistor R2 12,3 down left / ground 12,7 / 15,2 15,3 / capacitor C2 15,3 down right / ground 15,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    const C1 = startCapacitor(ask.f0Hz, choice);
    const R1 = 1 / (TWO_PI * ask.f0Hz * C1);
    return { R1, R2: R1, C1, C2: C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R2',
        formula: '\\frac{1}{2\\pi @f0 @C1}',
        text: 'Equal resistors and equal capacitors give the most level.',
      },
      { of: 'C1 C2', formula: '\\frac{1}{2\\pi @f0 @R1}', text: 'The capacitors started from.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi\\sqrt{@R1 @R2 @C1 @C2}}',
        text: 'Here the phase passes through zero.',
      },
      {
        of: 'Q',
        formula: '\\frac{\\sqrt{@R1 @R2 @C1 @C2}}{@R1 @C1 + @R2 @C2 + @R2 @C1}',
        text: 'One third with equal parts: a very broad hump.',
      },
      {
        of: 'gain',
        formula: '\\frac{@R2 @C1}{@R1 @C1 + @R2 @C2 + @R2 @C1}',
        text: 'At the centre a third of the input is left, 9.54 dB down.',
      },
    ]),
  about:
    'A high-pass into a low-pass that load each other; at one frequency the phase passes zero and a third comes through. Oscillators stand on it.',
  outputs: 'One, across R2 and C2.',
  tuning: 'Both resistors together move f0 and nothing else.',
  sensitivity: 'Each part moves f0 by half its own error.',
  avoid: 'No use as a selective filter: Q is one third at best.',
};
