import { RLC_WHY, rlcFigures, rlcValues } from './rlc';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type Topology } from '../topology';
import { because } from '../why';

export const rlcLowPass: Topology = {
  id: 'rlc-low-pass',
  family: 'rlc',
  name: 'RLC low-pass',
  short: '2nd low-pass, coil',
  asWords: 'a coil and a capacitor',
  kind: 'low-pass',
  order: 2,
  opAmps: 0,
  gain: 'unity',
  limits: { q: [0.1, 50], gain: [1, 1] },
  drawing:
    sketch(`in 0,2 / 0,2 1,2 / resistor R1 1,2 right / 5,2 6,2 / coil L1 6,2 right / 10,2 16,2 / out 16,2
    13,2 13,3 / capacitor C1 13,3 down right / ground 13,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    return rlcValues(ask, choice);
  },
  figures: rlcFigures,
  explain: (values) => because(values, rlcFigures(values), RLC_WHY),
  about:
    'Above resonance the coil blocks and the capacitor shorts; the resistor decides how much the meeting of the two rings.',
  outputs: 'One, across the capacitor; anything connected there damps it further.',
  tuning: 'L1 or C1 move f0 (and Q a little); R1 moves Q alone.',
  sensitivity:
    'One per cent of L1 or C1 is half a per cent of f0; the coil’s resistance adds to R1 and is rarely known well.',
  avoid: 'For audio line levels the coil is large and picks up hum; an op-amp stage does the same.',
};
