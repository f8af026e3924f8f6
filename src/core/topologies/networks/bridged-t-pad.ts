import { FLAT_HZ, PAD_LIMITS, padAsk } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import type { StageFigures, Topology, Values } from '../topology';
import { because } from '../why';

/** Two node equations: the middle of the T and the output. */
function figures({ R1, R2, R3, R4, RL }: Values): StageFigures {
  const a = 1 / R1 + 1 / R2 + 1 / R4;
  const b = 1 / R2 + 1 / R3 + 1 / RL;
  const det = a * b - 1 / (R2 * R2);
  return { f0Hz: FLAT_HZ, gain: (a / R3 + 1 / (R1 * R2)) / det };
}

export const bridgedTPad: Topology = {
  id: 'bridged-t-pad',
  name: 'Bridged-T pad',
  short: 'pad, bridged T',
  asWords: 'a bridged-T pad',
  kind: 'attenuator',
  order: 0,
  opAmps: 0,
  gain: 'settable',
  limits: PAD_LIMITS,
  drawing:
    sketch(`in 0,6 / 0,6 2,6 / resistor R1 2,6 right / 6,6 8,6 / resistor R2 8,6 right / 12,6 19,6 / out 19,6
    7,6 7,7 / resistor R4 7,7 down left / ground 7,11 / 1,6 1,2 5,2 / resistor R3 5,2 right / 9,2 13,2 13,6
    16,6 16,7 / resistor RL 16,7 down right / ground 16,11`),
  design(ask, choice) {
    const { k, Z } = padAsk(this, ask, choice, 600);
    return { R1: Z, R2: Z, R3: Z * (1 / k - 1), R4: (Z * k) / (1 - k), RL: Z };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'R1 R2', formula: '@RL', text: 'The arms are the impedance itself and never change.' },
      {
        of: 'R3',
        formula: '@RL\\left(\\frac{1}{@gain} - 1\\right)',
        text: 'The bridge grows as less shall pass.',
      },
      {
        of: 'R4',
        formula: '\\frac{@RL @gain}{1-@gain}',
        text: 'The leg shrinks in step: bridge times leg is the impedance squared.',
      },
      { of: 'RL', text: 'The impedance on both sides.' },
    ]),
  about: 'A T pad with a bridge: only two of its resistors change with the level.',
  outputs: 'One, across RL.',
  tuning: 'R3 and R4 in opposite directions: two tracks of one control.',
  sensitivity: 'The level follows the resistors by less than their own error.',
  avoid: 'Four resistors where three do, unless the level must be adjustable.',
};
