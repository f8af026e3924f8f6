import { sketch } from '@/core/drawing/sketch';
import { checkAsk, TWO_PI, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';

const figures = ({ R1, L1 }: Values): StageFigures => ({ f0Hz: R1 / (TWO_PI * L1), gain: 1 });

export const rlHighPass: Topology = {
  id: 'rl-high-pass',
  family: 'rl',
  name: 'RL high-pass',
  short: '1st high-pass, coil',
  asWords: 'one resistor and one coil',
  kind: 'high-pass',
  order: 1,
  opAmps: 0,
  gain: 'unity',
  limits: { gain: [1, 1] },
  drawing: sketch(`in 0,2 / 0,2 2,2 / resistor R1 2,2 right / 6,2 13,2 / out 13,2
    9,2 9,3 / coil L1 9,3 down right / ground 9,7`),
  design(ask, choice) {
    checkAsk(this, ask);
    const R1 = choice?.ohms ?? 1000;
    return { R1, L1: R1 / (TWO_PI * ask.f0Hz) };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      {
        of: 'L1',
        formula: '\\frac{@R1}{2\\pi @f0}',
        text: 'The coil’s reactance equals the resistor at the corner.',
      },
      { of: 'R1', formula: '2\\pi @f0 @L1', text: 'The resistor sets the impedance level.' },
      { of: 'f0', formula: '\\frac{@R1}{2\\pi @L1}', text: 'Here the level is 3.01 dB down.' },
    ]),
  about: 'At low frequencies the coil shorts the output; above the corner it steps aside.',
  outputs: 'One, across the coil.',
  tuning: 'f0 follows R1 and, inversely, L1.',
  sensitivity: 'One per cent of either part is one per cent of f0.',
  avoid:
    'The coil’s own resistance leaves a floor of level at d.c.; a capacitor is nearly always better.',
};
