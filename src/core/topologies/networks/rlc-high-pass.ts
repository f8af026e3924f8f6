import { RLC_WHY, rlcFigures, rlcValues } from './rlc';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

export const rlcHighPass: Topology = {
  id: 'rlc-high-pass',
  family: 'rlc',
  name: 'RLC high-pass',
  short: '2nd high-pass, coil',
  asWords: 'a capacitor and a coil',
  kind: 'high-pass',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  limits: { q: [0.1, 50], gain: [1, 1] },
  drawing:
    sketch(`in 0,2 / 0,2 1,2 / resistor R1 1,2 right / 5,2 6,2 / capacitor C1 6,2 right / 10,2 16,2 / out 16,2
    13,2 13,3 / coil L1 13,3 down right / ground 13,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    return rlcValues(ask, choice);
  },
  figures: rlcFigures,
  explain: (values) => because(values, rlcFigures(values), RLC_WHY),
  about: 'Below resonance the capacitor blocks and the coil shorts; the resistor sets the damping.',
  outputs: 'One, across the coil.',
  tuning: 'L1 or C1 move f0 (and Q a little); R1 moves Q alone.',
  sensitivity:
    'One per cent of L1 or C1 is half a per cent of f0; the coil’s resistance adds to R1 and is rarely known well.',
  avoid: 'The coil’s resistance leaves a floor of level far below the corner.',
};
