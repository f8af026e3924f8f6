import type { Drawing, DrawnSymbol, Point } from '../drawing';

/**
 * The common drawing of the two-resistor two-capacitor positive-feedback stages; low-pass and
 * high-pass differ in which kind of part stands where, unity gain and set gain in the divider.
 */
export function positiveFeedbackDrawing(
  kind: 'low-pass' | 'high-pass',
  settable: boolean,
): Drawing {
  const [series, shunt, S, P] =
    kind === 'low-pass'
      ? (['resistor', 'capacitor', 'R', 'C'] as const)
      : (['capacitor', 'resistor', 'C', 'R'] as const);
  const divider: DrawnSymbol[] = [
    { kind: 'resistor', id: 'RF', at: [15, 11], toward: 'right' },
    { kind: 'resistor', id: 'RG', at: [14, 12], toward: 'down', label: 'right' },
    { kind: 'ground', at: [14, 16] },
  ];
  const dividerWires: Point[][] = [
    [
      [14, 8],
      [14, 11],
      [15, 11],
    ],
    [
      [14, 11],
      [14, 12],
    ],
    [
      [19, 11],
      [20, 11],
      [20, 7],
    ],
  ];
  const follower: Point[][] = [
    [
      [14, 8],
      [14, 11],
      [19, 11],
      [19, 7],
    ],
  ];
  return {
    symbols: [
      { kind: 'port', net: 'in', at: [0, 6] },
      { kind: series, id: `${S}1`, at: [1, 6], toward: 'right' },
      { kind: series, id: `${S}2`, at: [7, 6], toward: 'right' },
      { kind: shunt, id: `${P}1`, at: [9, 2], toward: 'right' },
      { kind: shunt, id: `${P}2`, at: [12, 8], toward: 'down', label: 'left' },
      { kind: 'ground', at: [12, 12] },
      { kind: 'op-amp', id: 'A1', at: [14, 6], upper: 'plus' },
      { kind: 'port', net: 'out', at: [22, 7] },
      ...(settable ? divider : []),
    ],
    wires: [
      [
        [0, 6],
        [1, 6],
      ],
      [
        [5, 6],
        [7, 6],
      ],
      [
        [6, 6],
        [6, 2],
        [9, 2],
      ],
      [
        [13, 2],
        [20, 2],
        [20, 7],
      ],
      [
        [11, 6],
        [14, 6],
      ],
      [
        [12, 6],
        [12, 8],
      ],
      [
        [18, 7],
        [22, 7],
      ],
      ...(settable ? dividerWires : follower),
    ],
  };
}
