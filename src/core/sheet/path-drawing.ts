import {
  boundsOf,
  isPart,
  isPort,
  type Drawing,
  type DrawnSymbol,
  type Point,
  type Port,
} from '@/core/drawing/drawing';
import type { Stage } from './schema';
import { drawingOf, heardOf, portsOf } from './stage';

/** Separates stage id and part id in the ids of a composed drawing. */
const SEPARATOR = '/';

export function composedId(stageId: string, part: string): string {
  return `${stageId}${SEPARATOR}${part}`;
}

export function splitComposedId(id: string): { stageId: string; part: string } {
  const at = id.lastIndexOf(SEPARATOR);
  return { stageId: id.slice(0, at), part: id.slice(at + 1) };
}

/**
 * One drawing of several stages in a row: each stage's input port is laid onto the line that leaves
 * the output port before it. Part ids carry their stage's id. Where another output than the main one
 * is passed on, the next stage begins at a port of its name.
 */
export function composeDrawing(stages: readonly Stage[]): Drawing {
  const symbols: DrawnSymbol[] = [];
  const wires: (readonly Point[])[] = [];
  let previous: { at: Point; port: Port } | undefined;
  stages.forEach((stage, i) => {
    const drawing = drawingOf(stage);
    const input = portsOf(drawing).find((p) => p.net === 'in')!;
    const main = portsOf(drawing).find((p) => p.net === 'out')!;
    const { left } = boundsOf(drawing);
    const shift: Point = previous
      ? [previous.at[0] + 1 - left, previous.at[1] - input.at[1]]
      : [0, 0];
    const move = ([x, y]: Point): Point => [x + shift[0], y + shift[1]];
    const joined = previous?.port.net === 'out';
    const passedOn = heardOf(stage);
    for (const symbol of drawing.symbols) {
      const at = move(symbol.at);
      if (isPart(symbol)) symbols.push({ ...symbol, at, id: composedId(stage.id, symbol.id) });
      else if (!isPort(symbol)) symbols.push({ ...symbol, at });
      else if (symbol === input && previous) {
        if (!joined) symbols.push({ ...symbol, at, name: previous.port.name });
      } else if (symbol !== main || passedOn !== main || i === stages.length - 1)
        symbols.push({ ...symbol, at });
    }
    for (const wire of drawing.wires) wires.push(wire.map(move));
    if (previous && joined) wires.push([previous.at, move(input.at)]);
    previous = { at: move(main.at), port: passedOn };
  });
  return { symbols, wires };
}
