import { RLC_WHY, rlcFigures, rlcValues } from './rlc';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

export const rlcNotch: Topology = {
  id: 'rlc-notch',
  family: 'rlc',
  name: 'RLC notch',
  short: 'notch, coil',
  asWords: 'a series trap',
  kind: 'notch',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  limits: { q: [0.1, 50], gain: [1, 1] },
  drawing: sketch(`in 0,2 / 0,2 2,2 / resistor R1 2,2 right / 6,2 12,2 / out 12,2
    9,2 9,3 / coil L1 9,3 down right / 9,7 9,8 / capacitor C1 9,8 down right / ground 9,12`),
  design(ask, choice) {
    checkAsk(this, ask);
    return rlcValues(ask, choice);
  },
  figures: rlcFigures,
  explain: (values) => because(values, rlcFigures(values), RLC_WHY),
  about:
    'At resonance coil and capacitor in series are a short, and the trap takes that one frequency away.',
  outputs: 'One, across the trap.',
  tuning: 'L1 or C1 move f0 (and Q a little); R1 moves Q alone.',
  sensitivity:
    'One per cent of L1 or C1 is half a per cent of f0; the coil’s resistance adds to R1 and is rarely known well.',
  avoid: 'The coil’s resistance is what is left at the bottom: the depth is its ratio to R1.',
};
