import type { Mark, PartSymbol, Pin } from './part-kind';
import { SYMBOL_LENGTH, UNIT } from './part-kind';

const TOP = -0.9;
const BOTTOM = 2.9;

/** The symbol of an amplifier: two inputs on the left, the output at the tip. */
export function triangle({ further = [], sign }: { further?: Pin[]; sign?: string }): PartSymbol {
  const marks: Mark[] = [
    { text: '+', at: [0.65, 0] },
    { text: '−', at: [0.65, 2] },
    ...(sign === undefined ? [] : [{ text: sign, at: [1.6, 1] } as const]),
  ];
  return {
    pins: [
      { name: 'inPlus', at: [0, 0], leaves: 'left' },
      { name: 'inMinus', at: [0, 2], leaves: 'left' },
      { name: 'out', at: [SYMBOL_LENGTH, 1], leaves: 'right' },
      ...further,
    ],
    axis: 1,
    body: [
      [0, TOP],
      [SYMBOL_LENGTH, 1],
      [0, BOTTOM],
    ],
    leads: [],
    strokes: () => [
      {
        d: `M0 ${TOP * UNIT}V${BOTTOM * UNIT}L${SYMBOL_LENGTH * UNIT} ${UNIT}Z`,
        fill: 'paper',
      },
    ],
    marks,
    words: 'triangle',
    upright: 'plus',
    flipped: 'minus',
  };
}

/** A pin above or below the triangle. */
export const supplyPin = (name: string, side: 'above' | 'below'): Pin => ({
  name,
  at: [SYMBOL_LENGTH / 2, side === 'above' ? -1 : 3],
  leaves: side === 'above' ? 'up' : 'down',
  optional: [SYMBOL_LENGTH / 2, 1],
});
