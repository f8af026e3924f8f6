import type { Pin, PartSymbol, Stroke } from './part-kind';
import { SYMBOL_LENGTH } from './part-kind';

/** The symbol of a part with an end on either side. */
export function twoEnded(
  { half, from, to }: { half: number; from: number; to: number },
  strokes: PartSymbol['strokes'] | readonly Stroke[],
  names: readonly [string, string] = ['a', 'b'],
): PartSymbol {
  return {
    pins: endPins(names),
    axis: 0,
    body: [
      [from, -half],
      [to, -half],
      [to, half],
      [from, half],
    ],
    leads: [
      [
        [0, 0],
        [SYMBOL_LENGTH, 0],
      ],
    ],
    strokes: typeof strokes === 'function' ? strokes : () => strokes,
    words: 'along',
  };
}

/** Pins at both ends, `y` under the first pin's height. */
export const endPins = (names: readonly [string, string], y = 0): [Pin, Pin] => [
  { name: names[0], at: [0, y], leaves: 'left' },
  { name: names[1], at: [SYMBOL_LENGTH, y], leaves: 'right' },
];
