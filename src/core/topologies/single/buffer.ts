import { FLAT_HZ } from '../pad';
import { sketch } from '@/core/drawing/sketch';
import { checkAsk, type Topology } from '../topology';

export const buffer: Topology = {
  id: 'buffer',
  name: 'Buffer',
  short: 'buffer',
  asWords: 'a buffer',
  kind: 'gain',
  order: 0,
  opAmps: 1,
  gain: 'unity',
  limits: { gain: [1, 1] },
  drawing: sketch(
    `in 0,2 / 0,2 4,2 / op-amp A1 4,2 plus / 8,3 12,3 / out 12,3 / 4,4 4,6 10,6 10,3`,
  ),
  design(ask) {
    checkAsk(this, ask);
    return {};
  },
  figures: () => ({ f0Hz: FLAT_HZ, gain: 1 }),
  explain: () => [],
  about: 'The output is fed straight back: what comes in goes out, but now an op-amp drives it.',
  outputs: 'The op-amp’s output.',
  tuning: 'Nothing to tune.',
  sensitivity: 'None: no part sets the gain.',
  avoid: 'Long cables at the output can make it ring; a resistor of 100 Ω in the way helps.',
};
