import type { PartKind } from '../part-kind';
import { supplyPin, triangle } from '../triangle';

/** A perfect amplifier: what a black box in a traced circuit is, as far as it is known. */
export const amplifier: PartKind = {
  kind: 'amplifier',
  noun: 'perfect amplifier',
  article: 'a',
  letter: 'E',
  symbol: triangle({ further: [supplyPin('minus', 'below')], sign: '×' }),
  quantities: [
    { name: 'gain', label: 'Gain', quantity: 'ratio', usual: 1, range: [-1e9, 1e9], signed: true },
  ],
  across: ['inMinus', 'out'],
  inLine: 'out',
  series: null,
  price: null,
  tolerance: 0,
  become: ({ id, nets: { inPlus, inMinus, out, minus }, values: { gain }, ground }) => [
    { id, kind: 'voltage-amplifier', plus: out, minus: minus ?? ground, inPlus, inMinus, gain },
  ],
  take: (part, ground) => {
    if (part.kind !== 'voltage-amplifier') return undefined;
    const { inPlus, inMinus, plus, minus, gain } = part;
    return {
      nets: { inPlus, inMinus, out: plus, ...(minus === ground ? {} : { minus }) },
      values: { gain },
    };
  },
};
