import type { PartKind } from '../part-kind';
import { twoEnded } from '../two-ended';

export const switchKind: PartKind = {
  kind: 'switch',
  noun: 'switch',
  article: 'a',
  letter: 'S',
  symbol: twoEnded({ half: 0.6, from: 1.3, to: 2.7 }, [
    { d: 'M0 0H28M52 0H80M30 -1.5L49 -12' },
    { d: 'M28 0a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M48 0a2 2 0 1 0 4 0a2 2 0 1 0 -4 0', fill: 'paper' },
  ]),
  quantities: [
    { name: 'closed', label: 'Closed (1) or open (0)', quantity: 'ratio', usual: 1, range: [0, 1] },
    { name: 'closedOhms', label: 'Closed', quantity: 'ohms', usual: 0.01, range: [1e-6, 1e6] },
    { name: 'openOhms', label: 'Open', quantity: 'ohms', usual: 1e12, range: [1, 1e15] },
  ],
  series: null,
  price: 0.8,
  tolerance: 0,
  become: ({ id, nets: { a, b }, values: { closed, closedOhms, openOhms } }) => [
    { id, kind: 'switch', a, b, closed: closed >= 0.5, closedOhms, openOhms },
  ],
  take: (part) =>
    part.kind === 'switch'
      ? {
          nets: { a: part.a, b: part.b },
          values: {
            closed: part.closed ? 1 : 0,
            closedOhms: part.closedOhms,
            openOhms: part.openOhms,
          },
        }
      : undefined,
};
