import { FLAT_HZ } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';

const figures = ({ R1, R3 }: Values): StageFigures => ({ f0Hz: FLAT_HZ, gain: -R3 / R1 });

export const summing: Topology = {
  id: 'summing',
  name: 'Summing amplifier',
  short: 'sum, inverting',
  asWords: 'a summing amplifier',
  kind: 'gain',
  order: 0,
  opAmps: 1,
  gain: 'inverting',
  limits: { gain: [-1000, -0.001] },
  drawing:
    sketch(`in 0,6 / 0,6 4,6 / resistor R1 4,6 right / 8,6 14,6 / op-amp A1 14,6 minus / 14,8 14,10
    ground 14,10 / resistor R2 4,9 right / 8,9 9,9 9,6 / 4,9 2,9 / input second 2,9
    10,6 10,3 13,3 / resistor R3 13,3 right / 17,3 20,3 20,7 / 18,7 23,7 / out 23,7`),
  design(ask, choice) {
    const gain = ask.gain ?? -1;
    checkAsk(this, { ...ask, gain });
    const R1 = choice?.ohms ?? 10_000;
    return { R1, R2: R1, R3: -gain * R1 };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'R1', formula: '-\\frac{@R3}{@gain}', text: 'The first input’s share.' },
      {
        of: 'R2',

        text: 'The second input’s share; as R1, both count alike.',
      },
      { of: 'R3', formula: '-@gain @R1', text: 'Carries the currents of all inputs together.' },
      {
        of: 'gain',
        formula: '-\\frac{@R3}{@R1}',
        text: 'Each input has a gain of its own and none disturbs another.',
      },
    ]),
  about:
    'Currents from all inputs meet at a point that the op-amp holds at 0 V, so that they add without mixing back.',
  outputs:
    'The op-amp’s output, inverted. The second input stands at ground while nothing is joined to it.',
  tuning: 'Each input’s resistor sets its own share.',
  sensitivity: 'The gain of an input follows R3 over its resistor.',
  avoid: 'Every input raises the noise gain by its share, used or not.',
};
