import {
  boundsOf,
  isPort,
  type Drawing,
  type DrawnSymbol,
  type Point,
} from '@/core/drawing/drawing';
import { composeDrawing, composedId } from '@/core/sheet/path-drawing';
import { namesInCircuit, partNames } from '@/core/sheet/path-circuit';
import type { Way } from '@/core/sheet/schema';
import { drawnAlike } from '@/core/sheet/stage';
import { isActive } from './active';
import { driverEnd, type CrossoverDesign } from './crossover-design';

/** The line that all ways leave, to the left of their first parts. */
const TRUNK = -3;
/** Between the lowest part of a way and the highest of the next. */
const APART = 3;

/** What the driver of a way is called in the drawing. */
export const driverSymbolId = (way: Pick<Way, 'id'>): string => composedId(way.id, 'driver');

/** What the amplifier of a way is called in the drawing. */
export const amplifierSymbolId = (way: Pick<Way, 'id'>): string => composedId(way.id, 'amplifier');

/** The names of all parts of a crossover, numbered through from way to way. */
export const crossoverNames = (ways: readonly Way[]): Map<string, Map<string, string>> =>
  partNames(ways.flatMap((w) => w.stages));

/** The name that is drawn for a part of the crossover's circuit, by its id there. */
export function drawnNames(design: Pick<CrossoverDesign, 'ways'>): Map<string, string> {
  const names = crossoverNames(design.ways);
  return new Map(
    design.ways.flatMap((way, w) => {
      const inCircuit = namesInCircuit(design, w);
      return way.stages.flatMap((stage) =>
        [...names.get(stage.id)!].map(([part, name]) => [inCircuit(stage, part), name] as const),
      );
    }),
  );
}

/**
 * The whole network as one drawing: the ways below each other, all leaving the amplifier's line, each
 * ending in its driver. What is bypassed is not drawn.
 */
export function networkDrawing(ways: readonly Way[]): Drawing {
  const symbols: DrawnSymbol[] = [];
  const wires: (readonly Point[])[] = [];
  let top = 0;
  let first: number | undefined;
  let last = 0;
  const ends: { way: Way; at: Point }[] = [];
  for (const way of ways) {
    const shown = way.stages.filter((s) => !s.bypassed);
    const drawing = shown.length > 0 ? composeDrawing(shown) : STRAIGHT;
    const bounds = boundsOf(drawing);
    const shift: Point = [-bounds.left, top - bounds.top];
    const move = ([x, y]: Point): Point => [x + shift[0], y + shift[1]];
    let input: Point = [0, top];
    let output: Point = [0, top];
    for (const symbol of drawing.symbols) {
      if (!isPort(symbol)) symbols.push({ ...symbol, at: move(symbol.at) });
      else if (symbol.net === 'in') input = move(symbol.at);
      else if (symbol.net === 'out') output = move(symbol.at);
    }
    for (const wire of drawing.wires) wires.push(wire.map(move));
    wires.push([[TRUNK, input[1]], input]);
    first ??= input[1];
    last = input[1];
    ends.push({ way, at: output });
    top = Math.max(bounds.bottom + shift[1], output[1] + DRIVER + AMPLIFIER_DROP) + APART;
  }
  // The drivers stand below each other at the far end, those with amplifiers of their own behind them.
  const right = Math.max(...ends.map(({ at }) => at[0])) + 2;
  const far = ways.some(isActive) ? right + AMPLIFIER + 2 : right;
  for (const { way, at } of ends) {
    const line = at[1] + (isActive(way) ? AMPLIFIER_DROP : 0);
    if (isActive(way)) {
      symbols.push(
        { kind: 'amplifier', id: amplifierSymbolId(way), toward: 'right', at: [right, at[1]] },
        { kind: 'ground', at: [right, at[1] + 3] },
      );
      wires.push(
        [at, [right, at[1]]],
        [
          [right, at[1] + 2],
          [right, at[1] + 3],
        ],
        [
          [right + AMPLIFIER, line],
          [far, line],
        ],
      );
    } else if (at[0] < far) wires.push([at, [far, line]]);
    const driver = { kind: 'driver', id: driverSymbolId(way), toward: 'down' as const };
    const turned = driverEnd(way).inverted;
    symbols.push(
      turned
        ? { ...driver, toward: 'up', at: [far, line + DRIVER] }
        : { ...driver, at: [far, line] },
      { kind: 'ground', at: [far, line + DRIVER] },
    );
  }
  const start = first ?? 0;
  symbols.push({
    kind: 'port',
    name: ways.some(isActive) ? 'line' : 'amplifier',
    flow: 'in',
    net: 'in',
    at: [TRUNK - 1, start],
  });
  wires.push([
    [TRUNK - 1, start],
    [TRUNK, start],
  ]);
  if (last > start)
    wires.push([
      [TRUNK, start],
      [TRUNK, last],
    ]);
  return { symbols, wires };
}

/** Length of a driver's symbol, and of an amplifier's, whose output lies below its input. */
const DRIVER = 4;
const AMPLIFIER = 4;
const AMPLIFIER_DROP = 1;

const STRAIGHT: Drawing = {
  symbols: [
    { kind: 'port', name: 'in', flow: 'in', net: 'in', at: [0, 6] },
    { kind: 'port', name: 'out', flow: 'out', net: 'out', at: [8, 6] },
  ],
  wires: [
    [
      [0, 6],
      [8, 6],
    ],
  ],
};

/** Whether two states of a network look the same but for values and what is called by name. */
export const waysDrawnAlike = (a: readonly Way[], b: readonly Way[]): boolean =>
  a.length === b.length &&
  a.every(
    (way, i) =>
      driverEnd(way).inverted === driverEnd(b[i]).inverted &&
      isActive(way) === isActive(b[i]) &&
      way.stages.every((s, k) => s.bypassed === b[i].stages[k]?.bypassed) &&
      drawnAlike(way.stages, b[i].stages),
  );
