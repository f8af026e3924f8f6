import { sketch } from '@/core/drawing/sketch';
import { checkAsk, startCapacitor, TWO_PI, type Topology, type Values } from '../topology';
import { because } from '../why';

const figures = ({ R3, C1 }: Values) => ({ f0Hz: 1 / (TWO_PI * R3 * C1), gain: 1 });
const PAIR = 10_000;

export const allPassFirst: Topology = {
  id: 'all-pass-first',
  name: 'First-order all-pass',
  short: '1st all-pass',
  asWords: 'a first-order all-pass',
  kind: 'all-pass',
  order: 1,
  opAmps: 1,
  gain: 'unity',
  needsMatching: true,
  limits: { gain: [1, 1] },
  suits: () => 1,
  drawing:
    sketch(`in 0,6 / 0,6 4,6 / resistor R1 4,6 right / 8,6 14,6 / op-amp A1 14,6 minus / 2,6 2,8 4,8
    resistor R3 4,8 right / 8,8 14,8 / capacitor C1 11,9 down right / 11,8 11,9 / ground 11,13
    10,6 10,3 13,3 / resistor R2 13,3 right / 17,3 20,3 20,7 / 18,7 23,7 / out 23,7`),
  /** H = (1 - s R3 C1) / (1 + s R3 C1) with R1 = R2. */
  design(ask, choice) {
    checkAsk(this, ask);
    const C1 = startCapacitor(ask.f0Hz, choice);
    return { R1: PAIR, R2: PAIR, R3: 1 / (TWO_PI * ask.f0Hz * C1), C1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R2',

        text: 'Any equal pair; their mismatch is what the level is not flat by.',
      },
      { of: 'R3', formula: '\\frac{1}{2\\pi @f0 @C1}', text: 'Sets the turning frequency.' },
      { of: 'C1', formula: '\\frac{1}{2\\pi @f0 @R3}', text: 'The capacitor started from.' },
      {
        of: 'f0',
        formula: '\\frac{1}{2\\pi @R3 @C1}',
        text: 'Here the phase has turned by 90 degrees; the level is the same everywhere.',
      },
    ]),
  about:
    'Low frequencies come through upright, high ones inverted, and in between the phase turns; the level never changes.',
  outputs: 'The op-amp’s output.',
  tuning: 'R3 moves the turn.',
  sensitivity: 'One per cent of mismatch between R1 and R2 is one per cent of level.',
  avoid:
    'Alone it changes nothing that one hears; it is for delays, crossovers and phase matching.',
};
