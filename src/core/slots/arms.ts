import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';

/** A part of an arm: what a sketch calls its kind, and its id. */
export type ArmPart = readonly [word: 'resistor' | 'capacitor' | 'coil', id: string];

/** What lies in the line or across it: parts in a row, or side by side. */
export interface Arm {
  at: 'line' | 'across';
  join: 'row' | 'beside';
  parts: readonly ArmPart[];
}

/** Height of the line from input to output, and of what lies between parts. */
const LINE = 6;
const LENGTH = 4;
const BESIDE = 4;

/**
 * The drawing of a slot: arms along the line, those across it hanging down to ground.
 */
export function armsDrawing(arms: readonly Arm[]): Drawing {
  const words: string[] = [`in 0,${LINE}`];
  let x = 0;
  const wire = (...points: readonly (readonly [number, number])[]) =>
    words.push(points.map(([px, py]) => `${px},${py}`).join(' '));
  for (const { at, join, parts } of arms) {
    if (at === 'line' && join === 'row')
      for (const [word, id] of parts) {
        wire([x, LINE], [x + 1, LINE]);
        words.push(`${word} ${id} ${x + 1},${LINE} right`);
        x += 1 + LENGTH;
      }
    else if (at === 'line') {
      const [from, to] = [x + 2, x + 2 + LENGTH];
      wire([x, LINE], [from, LINE]);
      parts.forEach(([word, id], i) => {
        const y = LINE - i * BESIDE;
        words.push(`${word} ${id} ${from},${y} right`);
        if (i === 0) return;
        wire([from, y + BESIDE], [from, y]);
        wire([to, y + BESIDE], [to, y]);
      });
      x = to;
    } else if (join === 'row') {
      wire([x, LINE], [x + 3, LINE]);
      x += 3;
      wire([x, LINE], [x, LINE + 1]);
      let y = LINE + 1;
      for (const [word, id] of parts) {
        words.push(`${word} ${id} ${x},${y} down left`);
        y += LENGTH;
      }
      words.push(`ground ${x},${y}`);
    } else
      parts.forEach(([word, id]) => {
        wire([x, LINE], [x + 4, LINE]);
        x += 4;
        wire([x, LINE], [x, LINE + 1]);
        words.push(`${word} ${id} ${x},${LINE + 1} down left`, `ground ${x},${LINE + 1 + LENGTH}`);
      });
  }
  wire([x, LINE], [x + 2, LINE]);
  words.push(`out ${x + 2},${LINE}`);
  const { symbols, wires } = sketch(words.join('\n'));
  return { symbols, wires };
}
