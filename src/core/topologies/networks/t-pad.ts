import { divide, FLAT_HZ, PAD_LIMITS, padAsk, parallel } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import type { StageFigures, Topology, Values } from '../topology';
import { because } from '../why';

const figures = ({ R1, R2, R3, RL }: Values): StageFigures => ({
  f0Hz: FLAT_HZ,
  gain: divide(R1, parallel(R3, R2 + RL)) * divide(R2, RL),
});

export const tPad: Topology = {
  id: 't-pad',
  name: 'T pad',
  short: 'pad, T',
  asWords: 'a T pad',
  kind: 'attenuator',
  order: 0,
  opAmps: 0,
  gain: 'settable',
  limits: PAD_LIMITS,
  drawing:
    sketch(`in 0,2 / 0,2 1,2 / resistor R1 1,2 right / 5,2 8,2 / resistor R2 8,2 right / 12,2 17,2 / out 17,2
    6,2 6,3 / resistor R3 6,3 down left / ground 6,7 / 14,2 14,3 / resistor RL 14,3 down right / ground 14,7`),
  design(ask, choice) {
    const { k, Z } = padAsk(this, ask, choice, 600);
    const arm = (Z * (1 - k)) / (1 + k);
    return { R1: arm, R2: arm, R3: (2 * Z * k) / (1 - k * k), RL: Z };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1 R2',
        formula: '@RL\\frac{1-@gain}{1+@gain}',
        text: 'Equal arms keep the impedance the same from both sides.',
      },
      {
        of: 'R3',
        formula: '\\frac{2 @RL @gain}{1-@gain^2}',
        text: 'The leg takes away what shall not arrive.',
      },
      { of: 'RL', text: 'The impedance on both sides.' },
    ]),
  about: 'Level is taken away while both sides go on seeing the impedance they were made for.',
  outputs: 'One, across RL.',
  tuning: 'Three resistors move together; make it in steps, not with a knob.',
  sensitivity: 'The level follows the resistors by less than their own error.',
  avoid: 'Where impedances need not match, two resistors do the same.',
};
