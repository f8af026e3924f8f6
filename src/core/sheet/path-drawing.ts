import {
  boundsOf,
  isPart,
  isPort,
  type Drawing,
  type DrawnSymbol,
  type Point,
} from '@/core/drawing/drawing';
import { topologyOf } from '@/core/topologies';
import type { Stage } from './schema';

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
 * the output port before it. Part ids carry their stage's id.
 */
export function composeDrawing(stages: readonly Stage[]): Drawing {
  const symbols: DrawnSymbol[] = [];
  const wires: (readonly Point[])[] = [];
  let previousOut: Point | undefined;
  stages.forEach((stage, i) => {
    const { drawing } = topologyOf(stage.topology);
    const portAt = (net: 'in' | 'out') =>
      drawing.symbols.find((s) => isPort(s) && s.net === net)!.at;
    const [inX, inY] = portAt('in');
    const { left } = boundsOf(drawing);
    const shift: Point = previousOut ? [previousOut[0] + 1 - left, previousOut[1] - inY] : [0, 0];
    const move = ([x, y]: Point): Point => [x + shift[0], y + shift[1]];
    for (const symbol of drawing.symbols) {
      if (isPort(symbol)) {
        const joinsBefore = symbol.net === 'in' && i > 0;
        const joinsAfter = symbol.net === 'out' && i < stages.length - 1;
        if (!joinsBefore && !joinsAfter) symbols.push({ ...symbol, at: move(symbol.at) });
      } else {
        const moved = { ...symbol, at: move(symbol.at) };
        symbols.push(isPart(moved) ? { ...moved, id: composedId(stage.id, moved.id) } : moved);
      }
    }
    for (const wire of drawing.wires) wires.push(wire.map(move));
    if (previousOut) wires.push([previousOut, move([inX, inY])]);
    previousOut = move(portAt('out'));
  });
  return { symbols, wires };
}
