import type { PartKind } from '../part-kind';
import { supplyPin, triangle } from '../triangle';

export const transconductor: PartKind = {
  kind: 'transconductor',
  noun: 'transconductor',
  article: 'a',
  letter: 'G',
  symbol: triangle({ further: [supplyPin('from', 'below')], sign: 'g' }),
  // Set by a bias current, which is no part of a series.
  quantities: [{ name: 'siemens', label: 'Transconductance', quantity: 'siemens', usual: 1e-3 }],
  across: ['inMinus', 'out'],
  inLine: 'out',
  series: null,
  price: 1.1,
  inDesigns: true,
  tolerance: 0.05,
  become: ({ id, nets: { inPlus, inMinus, out, from }, values: { siemens }, ground }) => [
    { id, kind: 'transconductor', from: from ?? ground, to: out, inPlus, inMinus, siemens },
  ],
  take: (part, ground) => {
    if (part.kind !== 'transconductor') return undefined;
    const { inPlus, inMinus, from, to, siemens } = part;
    // One that draws current the other way round is the same with its inputs exchanged.
    const swapped = siemens < 0;
    return {
      nets: {
        inPlus: swapped ? inMinus : inPlus,
        inMinus: swapped ? inPlus : inMinus,
        out: to,
        ...(from === ground ? {} : { from }),
      },
      values: { siemens: Math.abs(siemens) },
    };
  },
};
