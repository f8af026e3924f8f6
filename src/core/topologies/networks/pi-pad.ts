import { divide, FLAT_HZ, PAD_LIMITS, padAsk, parallel } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import type { StageFigures, Topology, Values } from '../topology';
import { because } from '../why';

const figures = ({ R2, R3, RL }: Values): StageFigures => ({
  f0Hz: FLAT_HZ,
  gain: divide(R2, parallel(R3, RL)),
});

export const piPad: Topology = {
  id: 'pi-pad',
  name: 'Pi pad',
  short: 'pad, pi',
  asWords: 'a pi pad',
  kind: 'attenuator',
  order: 0,
  opAmps: 0,
  gain: 'settable',
  limits: PAD_LIMITS,
  drawing: sketch(`in 0,2 / 0,2 6,2 / resistor R2 6,2 right / 10,2 18,2 / out 18,2
    4,2 4,3 / resistor R1 4,3 down left / ground 4,7 / 11,2 11,3 / resistor R3 11,3 down left / ground 11,7
    15,2 15,3 / resistor RL 15,3 down right / ground 15,7`),
  design(ask, choice) {
    const { k, Z } = padAsk(this, ask, choice, 600);
    const leg = (Z * (1 + k)) / (1 - k);
    return { R1: leg, R2: (Z * (1 - k * k)) / (2 * k), R3: leg, RL: Z };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R3',
        formula: '@RL\\frac{1+@gain}{1-@gain}',
        text: 'Equal legs keep the impedance the same from both sides.',
      },
      {
        of: 'R2',
        formula: '\\frac{@RL (1-@gain^2)}{2 @gain}',
        text: 'The bridge between the sides.',
      },
      { of: 'RL', text: 'The impedance on both sides.' },
    ]),
  about: 'The T pad’s counterpart: legs outside, bridge in the middle; values come out higher.',
  outputs: 'One, across RL.',
  tuning: 'Three resistors move together.',
  sensitivity: 'The level follows the resistors by less than their own error.',
  avoid: 'Where impedances need not match, two resistors do the same.',
};
