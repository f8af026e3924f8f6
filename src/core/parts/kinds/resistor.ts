import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

const LENGTH = 80;

export const resistor: PartKind = {
  kind: 'resistor',
  noun: 'resistor',
  article: 'a',
  letter: 'R',
  symbol: twoEnded({ half: 0.4, from: 0.7, to: 3.3 }, (look) =>
    look === 'box'
      ? [{ d: `M0 0H14M66 0H${LENGTH}` }, { d: 'M14 -8H66V8H14Z', fill: 'paper' }]
      : [{ d: `M0 0H14l4.3 -8 8.7 16 8.7 -16 8.6 16 8.7 -16 8.7 16 4.3 -8H${LENGTH}` }],
  ),
  quantities: [{ name: 'ohms', label: 'Resistance', quantity: 'ohms', usual: 10e3 }],
  series: 'resistors',
  price: 0.03,
  inDesigns: true,
  tolerance: 0.01,
  become: ({ id, nets: { a, b }, values: { ohms } }) => [{ id, kind: 'resistor', a, b, ohms }],
  take: (part) =>
    part.kind === 'resistor'
      ? { nets: { a: part.a, b: part.b }, values: { ohms: part.ohms } }
      : undefined,
};
