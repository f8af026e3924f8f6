import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

export const inductor: PartKind = {
  kind: 'inductor',
  noun: 'coil',
  article: 'a',
  letter: 'L',
  symbol: twoEnded({ half: 0.33, from: 0.7, to: 3.3 }, [
    {
      d: 'M0 0H14a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0H80',
    },
  ]),
  quantities: [{ name: 'henries', label: 'Inductance', quantity: 'henries', usual: 10e-3 }],
  lossy: true,
  series: 'inductors',
  price: 1.5,
  inDesigns: true,
  tolerance: 0.05,
  become: ({ id, nets: { a, b }, values: { henries }, lossOhms }) => [
    {
      id,
      kind: 'inductor',
      a,
      b,
      henries,
      ...(lossOhms === undefined ? {} : { dcrOhms: lossOhms }),
    },
  ],
  take: (part) =>
    part.kind === 'inductor'
      ? {
          nets: { a: part.a, b: part.b },
          values: { henries: part.henries },
          ...(part.dcrOhms === undefined ? {} : { lossOhms: part.dcrOhms }),
        }
      : undefined,
};
