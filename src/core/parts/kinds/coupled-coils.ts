import type { PartKind } from '../part-kind';
import { endPins } from '../two-ended';

/** Where the dotted ends of both coils lie: at their first pins. */
const DOTS = 'M11 8a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M11 32a2 2 0 1 0 4 0a2 2 0 1 0 -4 0';

export const coupledCoils: PartKind = {
  kind: 'coupled-coils',
  noun: 'pair of coupled coils',
  article: 'a',
  letter: 'T',
  symbol: {
    pins: [...endPins(['a1', 'b1']), ...endPins(['a2', 'b2'], 2)],
    axis: 1,
    body: [
      [0.5, -0.35],
      [3.5, -0.35],
      [3.5, 2.35],
      [0.5, 2.35],
    ],
    leads: [
      [
        [0, 0],
        [4, 0],
      ],
      [
        [0, 2],
        [4, 2],
      ],
    ],
    strokes: () => [
      {
        d: 'M0 0H14a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0a6.5 6.5 0 0 1 13 0H80',
      },
      {
        d: 'M0 40H14a6.5 6.5 0 0 0 13 0a6.5 6.5 0 0 0 13 0a6.5 6.5 0 0 0 13 0a6.5 6.5 0 0 0 13 0H80',
      },
      { d: 'M18 17H62M18 23H62' },
      { d: DOTS, fill: 'ink' },
    ],
    words: 'around',
  },
  quantities: [
    { name: 'henries', label: 'First coil', quantity: 'henries', usual: 10e-3 },
    { name: 'second', label: 'Second coil', quantity: 'henries', usual: 10e-3 },
    { name: 'k', label: 'Coupling', quantity: 'ratio', usual: 0.9, range: [-0.9999999, 0.9999999] },
    { name: 'firstOhms', label: 'Loss of the first', quantity: 'ohms', usual: 0, range: [0, 1e6] },
    {
      name: 'secondOhms',
      label: 'Loss of the second',
      quantity: 'ohms',
      usual: 0,
      range: [0, 1e6],
    },
  ],
  series: null,
  price: 3,
  tolerance: 0.05,
  become({ id, nets: { a1, b1, a2, b2 }, values }) {
    const { henries, second, k, firstOhms, secondOhms } = values;
    const [first, other] = [`${id}.1`, `${id}.2`];
    const loss = (dcrOhms: number) => (dcrOhms > 0 ? { dcrOhms } : {});
    return [
      { id: first, kind: 'inductor', a: a1, b: b1, henries, ...loss(firstOhms) },
      { id: other, kind: 'inductor', a: a2, b: b2, henries: second, ...loss(secondOhms) },
      { id, kind: 'coupling', inductors: [first, other], k },
    ];
  },
  // Made of several parts of a circuit: `takeCircuit` puts them together.
  take: () => undefined,
};
