import * as z from 'zod';
import { TAPERS } from '@/core/circuit/devices/potentiometer';
import type { PartKind, PartQuantity, Stroke } from '../part-kind';
import { endPins } from '../two-ended';

/** What a track is made like. */
export const trackModel = z.strictObject({ taper: z.enum(TAPERS) });
export const TRACKS = [
  { name: 'linear track', model: { taper: 'linear' } },
  { name: 'audio track', model: { taper: 'audio' } },
  { name: 'reverse audio track', model: { taper: 'reverse-audio' } },
] as const;

/** Common to single and ganged: the track and where the shaft stands, 0 at the first end. */
export const TRACK_QUANTITIES: readonly PartQuantity[] = [
  { name: 'ohms', label: 'Track', quantity: 'ohms', usual: 10e3 },
  { name: 'turn', label: 'Turn', quantity: 'ratio', usual: 0.5, range: [0, 1] },
  { name: 'endOhms', label: 'Left at the stops', quantity: 'ohms', usual: 1, range: [0, 1e6] },
  {
    name: 'mismatch',
    label: 'Ahead of the shaft',
    quantity: 'ratio',
    usual: 0,
    range: [-0.2, 0.2],
  },
];

/** A track `y` parts of a unit lower, as a box or a zigzag. */
export const trackStrokes = (look: 'box' | 'zigzag', y: number): Stroke[] =>
  look === 'box'
    ? [{ d: `M0 ${y}H14M66 ${y}H80` }, { d: `M14 ${y - 8}H66V${y + 8}H14Z`, fill: 'paper' }]
    : [{ d: `M0 ${y}H14l4.3 -8 8.7 16 8.7 -16 8.6 16 8.7 -16 8.7 16 4.3 -8H80` }];

export const taperOf = (model: unknown) => trackModel.safeParse(model).data?.taper ?? 'linear';

export const potentiometer: PartKind = {
  kind: 'potentiometer',
  noun: 'potentiometer',
  article: 'a',
  letter: 'P',
  symbol: {
    pins: [...endPins(['a', 'b']), { name: 'wiper', at: [2, 2], leaves: 'down' }],
    axis: 0,
    body: [
      [0.7, -0.4],
      [3.3, -0.4],
      [3.3, 0.4],
      [0.7, 0.4],
    ],
    leads: [
      [
        [0, 0],
        [4, 0],
      ],
      [
        [2, 0],
        [2, 2],
      ],
    ],
    strokes: (look) => [
      ...trackStrokes(look, 0),
      { d: 'M40 40V16' },
      { d: 'M40 9L35.5 18H44.5Z', fill: 'ink' },
    ],
    words: 'along',
  },
  quantities: TRACK_QUANTITIES,
  model: trackModel,
  models: TRACKS,
  series: null,
  price: 1.2,
  tolerance: 0.2,
  become: ({ id, nets: { a, b, wiper }, values: { ohms, turn, endOhms, mismatch }, model }) => [
    {
      id,
      kind: 'potentiometer',
      a,
      wiper,
      b,
      ohms,
      turn,
      taper: taperOf(model),
      endOhms,
      mismatch,
    },
  ],
  take: (part) =>
    part.kind === 'potentiometer'
      ? {
          nets: { a: part.a, b: part.b, wiper: part.wiper },
          values: {
            ohms: part.ohms,
            turn: part.turn,
            endOhms: part.endOhms,
            mismatch: part.mismatch,
          },
          model: { taper: part.taper },
        }
      : undefined,
};
