import type { PartKind } from '../part-kind';
import { endPins } from '../two-ended';
import { taperOf, TRACK_QUANTITIES, trackModel, TRACKS, trackStrokes } from './potentiometer';

/** How far the second track stands under the first. */
const APART = 5;

export const gangedPotentiometer: PartKind = {
  kind: 'ganged-potentiometer',
  noun: 'ganged potentiometer',
  article: 'a',
  letter: 'P',
  symbol: {
    pins: [
      ...endPins(['a', 'b']),
      { name: 'wiper', at: [2, -2], leaves: 'up' },
      ...endPins(['a2', 'b2'], APART),
      { name: 'wiper2', at: [2, APART + 2], leaves: 'down' },
    ],
    axis: APART / 2,
    body: [
      [0.7, -0.4],
      [3.3, -0.4],
      [3.3, APART + 0.4],
      [0.7, APART + 0.4],
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
      [
        [2, -2],
        [2, APART + 2],
      ],
    ],
    strokes: (look) => [
      { d: `M40 0V${APART * 20}`, dashed: true },
      ...trackStrokes(look, 0),
      ...trackStrokes(look, APART * 20),
      { d: 'M40 -40V-16M40 140V116' },
      { d: 'M40 -9L35.5 -18H44.5ZM40 109L35.5 118H44.5Z', fill: 'ink' },
    ],
    words: 'around',
  },
  quantities: TRACK_QUANTITIES,
  model: trackModel,
  models: TRACKS,
  series: null,
  price: 2.4,
  tolerance: 0.2,
  become: ({ id, nets, values: { ohms, turn, endOhms, mismatch }, model }) => {
    const track = { ohms, turn, taper: taperOf(model), endOhms };
    const { a, b, wiper, a2, b2, wiper2 } = nets;
    return [
      { id, kind: 'potentiometer', a, wiper, b, ...track, mismatch: 0 },
      { id: `${id}.2`, kind: 'potentiometer', a: a2, wiper: wiper2, b: b2, ...track, mismatch },
    ];
  },
  // Two tracks of a circuit file stay two potentiometers: it does not say that they share a shaft.
  take: () => undefined,
};
