import { divide, FLAT_HZ, PAD_LIMITS, padAsk, parallel } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import type { StageFigures, Topology, Values } from '../topology';
import { because } from '../why';

const figures = ({ R1, R2, RL }: Values): StageFigures => ({
  f0Hz: FLAT_HZ,
  gain: divide(R1, parallel(R2, RL)),
});

export const lPad: Topology = {
  id: 'l-pad',
  name: 'L pad',
  short: 'pad, L',
  asWords: 'an L pad',
  kind: 'attenuator',
  order: 0,
  opAmps: 0,
  gain: 'settable',
  limits: PAD_LIMITS,
  drawing: sketch(`in 0,2 / 0,2 2,2 / resistor R1 2,2 right / 6,2 17,2 / out 17,2
    9,2 9,3 / resistor R2 9,3 down left / ground 9,7 / 13,2 13,3 / resistor RL 13,3 down right / ground 13,7`),
  /** Input impedance Z with the load Z behind it: R1 = Z (1-k), R2 = Z k/(1-k). */
  design(ask, choice) {
    const { k, Z } = padAsk(this, ask, choice, 8);
    return { R1: Z * (1 - k), R2: (Z * k) / (1 - k), RL: Z };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'R1',
        formula: '@RL (1-@gain)',
        text: 'Together with what follows it keeps the load on the source as it was.',
      },
      {
        of: 'R2',
        formula: '\\frac{@RL @gain}{1-@gain}',
        text: 'Takes the current the load shall not have.',
      },
      {
        of: 'RL',

        text: 'The load it is made for: a driver, or the next input.',
      },
      {
        of: 'gain',
        formula: '\\frac{1}{1 + @R1\\left(\\frac{1}{@R2} + \\frac{1}{@RL}\\right)}',
        text: 'The level that is left, over the input.',
      },
    ]),
  about: 'Two resistors that take level away while the source goes on seeing the load it knows.',
  outputs: 'One, across RL, which is the load itself.',
  tuning: 'R1 up and R2 down for less level; both must move to keep the impedance.',
  sensitivity: 'The level follows the resistors by less than their own error.',
  avoid:
    'It changes the impedance the load sees. At loudspeaker levels the resistors get hot: choose their wattage for the whole power and mount them clear of anything.',
};
