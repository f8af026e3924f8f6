import type { Drawing } from './drawing';

/**
 * The common drawing of the one-resistor one-capacitor stages; low-pass and high-pass differ in
 * which part stands in the signal path, and a buffered one has a follower behind it.
 */
export function firstOrderDrawing(kind: 'low-pass' | 'high-pass', buffered: boolean): Drawing {
  const [series, shunt, S, P] =
    kind === 'low-pass'
      ? (['resistor', 'capacitor', 'R', 'C'] as const)
      : (['capacitor', 'resistor', 'C', 'R'] as const);
  const x = buffered ? 8 : 9;
  return {
    symbols: [
      { kind: 'port', net: 'in', at: [0, 2] },
      { kind: series, id: `${S}1`, at: [2, 2], toward: 'right' },
      { kind: shunt, id: `${P}1`, at: [x, 3], toward: 'down', label: buffered ? 'left' : 'right' },
      { kind: 'ground', at: [x, 7] },
      ...(buffered ? [{ kind: 'op-amp', id: 'A1', at: [11, 2], upper: 'plus' } as const] : []),
      { kind: 'port', net: 'out', at: buffered ? [18, 3] : [13, 2] },
    ],
    wires: [
      [
        [0, 2],
        [2, 2],
      ],
      [[6, 2], buffered ? [11, 2] : [13, 2]],
      [
        [x, 2],
        [x, 3],
      ],
      ...(buffered
        ? ([
            [
              [11, 4],
              [11, 7],
              [16, 7],
              [16, 3],
            ],
            [
              [15, 3],
              [18, 3],
            ],
          ] as const)
        : []),
    ],
  };
}
