import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

export const capacitor: PartKind = {
  kind: 'capacitor',
  noun: 'capacitor',
  article: 'a',
  letter: 'C',
  symbol: twoEnded({ half: 0.65, from: 1.75, to: 2.25 }, [
    { d: 'M0 0H35M35 -13V13M45 -13V13M45 0H80' },
  ]),
  quantities: [{ name: 'farads', label: 'Capacitance', quantity: 'farads', usual: 10e-9 }],
  lossy: true,
  series: 'capacitors',
  price: 0.2,
  inDesigns: true,
  tolerance: 0.05,
  become: ({ id, nets: { a, b }, values: { farads }, lossOhms }) => [
    {
      id,
      kind: 'capacitor',
      a,
      b,
      farads,
      ...(lossOhms === undefined ? {} : { esrOhms: lossOhms }),
    },
  ],
  take: (part) =>
    part.kind === 'capacitor'
      ? {
          nets: { a: part.a, b: part.b },
          values: { farads: part.farads },
          ...(part.esrOhms === undefined ? {} : { lossOhms: part.esrOhms }),
        }
      : undefined,
};
