import { readCircuit, type Circuit } from '../schema';
import { r } from './parts';

const model = { polarity: 'npn', saturationAmps: 1e-14, betaForward: 100 };

/** Two transistors that hold each other: two states, and one balanced between them. */
export const flipFlop = (): Circuit =>
  readCircuit({
    format: 'jaunty-reed/circuit',
    version: 1,
    ground: '0',
    parts: [
      { id: 'VP', kind: 'voltage-source', plus: 'vp', minus: '0', dcVolts: 9 },
      { id: 'VI', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
      r('RI', 'in', 'b1', 1e6),
      ...[1, 2].flatMap((k) => [
        r(`RC${k}`, 'vp', k === 2 ? 'out' : 'c1', 1000),
        r(`RB${k}`, k === 2 ? 'out' : 'c1', `b${3 - k}`, 22_000),
        {
          id: `Q${k}`,
          kind: 'transistor',
          collector: k === 2 ? 'out' : 'c1',
          base: `b${k}`,
          emitter: '0',
          model,
        },
      ]),
    ],
  });
