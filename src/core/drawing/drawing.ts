import { partKindOf } from '@/core/parts';
import { turned, turnedFacing, type Facing, type Lie, type Point } from '@/core/parts/geometry';
import type { PartSymbol } from '@/core/parts/part-kind';

export type { Point } from '@/core/parts/geometry';
export { SYMBOL_LENGTH } from '@/core/parts/part-kind';

/** Where a part's name and value stand beside its symbol. */
export type LabelSide = 'above' | 'below' | 'left' | 'right';

/** A part on paper: its kind says what it looks like and where its pins are. */
export interface PartOnPaper extends Lie {
  kind: string;
  id: string;
  /** Where the corner 0,0 of the symbol's plane comes to lie: its first pin, or the first after a flip. */
  at: Point;
  label?: LabelSide;
  /** Optional pins that are drawn. */
  with?: readonly string[];
}

/** A place where the circuit is joined to others, by name. */
export interface Port {
  kind: 'port';
  name: string;
  flow: 'in' | 'out';
  /** The main input and output carry the nets `in` and `out`; further ones their own. */
  net: string;
  at: Point;
}

/** A net's name, written at one of its lines. */
export interface NetName {
  kind: 'name';
  name: string;
  at: Point;
}

export type DrawnSymbol = PartOnPaper | Port | NetName | { kind: 'ground'; at: Point };

/** Whether a symbol is a part, with an id and a kind of its own. */
export const isPart = (symbol: DrawnSymbol): symbol is PartOnPaper => 'id' in symbol;
export const isPort = (symbol: DrawnSymbol): symbol is Port => symbol.kind === 'port';
export const isName = (symbol: DrawnSymbol): symbol is NetName => symbol.kind === 'name';

/**
 * A schematic on a grid. It is the only description of how a stage is wired: the net list is read
 * off it (see `nets.ts`), so picture and circuit cannot differ.
 */
export interface Drawing {
  symbols: readonly DrawnSymbol[];
  /** Polylines with horizontal and vertical runs. They join where an end meets a wire or a pin. */
  wires: readonly (readonly Point[])[];
}

export interface PlacedPin {
  terminal: string;
  at: Point;
  /** The way a line leaves it. */
  leaves: Facing;
}

/** A point of a part's own plane, on paper. */
export function onPaper(symbol: PartOnPaper, own: Point, { axis }: PartSymbol): Point {
  const [x, y] = turned(own, symbol, axis);
  return [symbol.at[0] + x, symbol.at[1] + y];
}

/** The pins of a symbol: terminal name, place and the way out. */
export function pinsOf(symbol: DrawnSymbol): PlacedPin[] {
  if (!isPart(symbol)) {
    const terminal = 'name' in symbol ? symbol.name : 'ground';
    return [{ terminal, at: symbol.at, leaves: leavesOf(symbol) }];
  }
  const its = partKindOf(symbol.kind).symbol;
  return its.pins
    .filter((pin) => !pin.optional || symbol.with?.includes(pin.name))
    .map((pin) => ({
      terminal: pin.name,
      at: onPaper(symbol, pin.at, its),
      leaves: turnedFacing(pin.leaves, symbol),
    }));
}

const leavesOf = (symbol: Exclude<DrawnSymbol, PartOnPaper>): Facing =>
  symbol.kind === 'ground' ? 'up' : isPort(symbol) && symbol.flow === 'out' ? 'left' : 'right';

/** The corners of everything drawn. */
export function boundsOf(drawing: Drawing): {
  left: number;
  top: number;
  right: number;
  bottom: number;
} {
  const points = [
    ...drawing.wires.flat(),
    ...drawing.symbols.flatMap((s) => pinsOf(s).map((p) => p.at)),
  ];
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return {
    left: Math.min(...xs),
    top: Math.min(...ys),
    right: Math.max(...xs),
    bottom: Math.max(...ys),
  };
}
