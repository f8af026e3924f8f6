import type { z } from 'zod';
import { photocellModel } from '@/core/circuit/devices/photocell';
import type { PartKind } from '../part-kind';
import { endPins } from '../two-ended';

type Model = z.infer<typeof photocellModel>;

/** The lamp stands this far under the cell. */
const APART = 3;

export const photocell: PartKind = {
  kind: 'photocell',
  noun: 'lamp and photocell',
  article: 'a',
  letter: 'H',
  symbol: {
    pins: [...endPins(['a', 'b']), ...endPins(['lampPlus', 'lampMinus'], APART)],
    axis: APART / 2,
    body: [
      [0.7, -0.4],
      [3.3, -0.4],
      [3.3, APART + 0.6],
      [0.7, APART + 0.6],
    ],
    leads: [
      [
        [0, 0],
        [4, 0],
      ],
      [
        [0, APART],
        [4, APART],
      ],
    ],
    strokes: () => [
      { d: 'M0 0H14M66 0H80M0 60H29M51 60H80' },
      { d: 'M14 -8H66V8H14Z', fill: 'paper' },
      { d: 'M29 60a11 11 0 1 0 22 0a11 11 0 1 0 -22 0', fill: 'paper' },
      { d: 'M32.2 52.2l15.6 15.6M47.8 52.2l-15.6 15.6' },
      { d: 'M33 42V18M33 18l-3 6M33 18l3 6M47 42V18M47 18l-3 6M47 18l3 6' },
    ],
    words: 'around',
  },
  quantities: [],
  model: photocellModel,
  models: [
    {
      name: 'small lamp and cell',
      model: {
        lampOhms: 200,
        darkOhms: 1e7,
        curve: [
          { amps: 1e-3, ohms: 20e3 },
          { amps: 5e-3, ohms: 2e3 },
          { amps: 20e-3, ohms: 300 },
        ],
        onSeconds: 0.005,
        offSeconds: 0.08,
      },
    },
  ],
  series: null,
  price: 2.5,
  tolerance: 0,
  become: ({ id, nets: { a, b, lampPlus, lampMinus }, model }) => [
    { id, kind: 'photocell', a, b, lampPlus, lampMinus, ...(model as Model) },
  ],
  take: (part) => {
    if (part.kind !== 'photocell') return undefined;
    const { a, b, lampPlus, lampMinus, lampOhms, darkOhms, curve, onSeconds, offSeconds } = part;
    return {
      nets: { a, b, lampPlus, lampMinus },
      values: {},
      model: { lampOhms, darkOhms, curve, onSeconds, offSeconds },
    };
  },
};
