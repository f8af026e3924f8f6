import { FLAT_HZ } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';

const figures = ({ RF, RG }: Values): StageFigures => ({ f0Hz: FLAT_HZ, gain: 1 + RF / RG });

export const nonInverting: Topology = {
  id: 'non-inverting',
  name: 'Non-inverting amplifier',
  short: 'gain',
  asWords: 'a non-inverting amplifier',
  kind: 'gain',
  order: 0,
  opAmps: 1,
  gain: 'settable',
  limits: { gain: [1.001, 1000] },
  drawing: sketch(`in 0,2 / 0,2 4,2 / op-amp A1 4,2 plus / 8,3 13,3 / out 13,3
    4,4 4,7 / 4,7 6,7 / resistor RF 6,7 right / 10,7 11,7 11,3 / resistor RG 4,7 down left / ground 4,11`),
  design(ask, choice) {
    const gain = ask.gain ?? 2;
    checkAsk(this, { ...ask, gain });
    const RF = choice?.ohms ?? 10_000;
    return { RF, RG: RF / (gain - 1) };
  },
  figures,
  explain: (values) =>
    because(values, figures(values), [
      { of: 'RF', formula: '(@gain - 1) @RG', text: 'Upper half of the divider.' },
      { of: 'RG', formula: '\\frac{@RF}{@gain - 1}', text: 'Lower half of the divider.' },
      {
        of: 'gain',
        formula: '1 + \\frac{@RF}{@RG}',
        text: 'The divider hands this part of the output back, and the op-amp makes both inputs equal.',
      },
    ]),
  about:
    'The input goes straight to the op-amp, which barely loads it; a divider from the output sets the gain.',
  outputs: 'The op-amp’s output.',
  tuning: 'RF or RG, by their ratio.',
  sensitivity: 'The gain follows the ratio of the two.',
  avoid: 'It cannot attenuate.',
};
