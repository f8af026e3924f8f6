import type { PartSymbol, Stroke } from './part-kind';

const CIRCLE = 'M4 0a26 26 0 1 0 52 0a26 26 0 1 0 -52 0';

/** The symbol of a transistor: its control on the left, an end above and one below. */
export function threeEnded(
  [control, above, below]: readonly [string, string, string],
  strokes: readonly Stroke[],
): PartSymbol {
  return {
    pins: [
      { name: control, at: [0, 0], leaves: 'left' },
      { name: above, at: [2, -2], leaves: 'up' },
      { name: below, at: [2, 2], leaves: 'down' },
    ],
    axis: 0,
    body: [
      [0.2, -1.3],
      [2.8, -1.3],
      [2.8, 1.3],
      [0.2, 1.3],
    ],
    leads: [
      [
        [2, -2],
        [2, 2],
      ],
    ],
    strokes: () => [{ d: CIRCLE, fill: 'paper' }, ...strokes],
    words: 'around',
  };
}
