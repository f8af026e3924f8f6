/** A point on the drawing grid, in whole grid units; y grows downwards. */
export type Point = readonly [x: number, y: number];

/** Where a part's name and value stand beside its symbol. */
export type LabelSide = 'above' | 'below' | 'left' | 'right';

/** Length of a two-terminal symbol, and of an op-amp from inputs to output, in grid units. */
export const SYMBOL_LENGTH = 4;

export type DrawnSymbol =
  | {
      kind: 'resistor' | 'capacitor' | 'inductor';
      id: string;
      /** First terminal; the second lies `SYMBOL_LENGTH` further to the right or down. */
      at: Point;
      toward: 'right' | 'down';
      label?: LabelSide;
    }
  | {
      kind: 'op-amp' | 'transconductor';
      id: string;
      /** The upper input; the lower one is two units down, the output four right and one down. */
      at: Point;
      upper: 'plus' | 'minus';
    }
  | { kind: 'ground'; at: Point }
  | { kind: 'port'; net: 'in' | 'out'; at: Point }
  /** A further output, with its name. */
  | { kind: 'tap'; name: string; at: Point };

export type AmplifierSymbol = Extract<DrawnSymbol, { upper: unknown }>;

/** Whether a symbol has two inputs and an output, instead of two ends. */
export const isAmplifier = (symbol: DrawnSymbol): symbol is AmplifierSymbol => 'upper' in symbol;

/**
 * A schematic on a grid. It is the only description of how a topology is wired: the net list is
 * read off it (see `nets.ts`), so picture and circuit cannot differ.
 */
export interface Drawing {
  symbols: readonly DrawnSymbol[];
  /** Polylines with horizontal and vertical runs. They join where an end meets a wire or a pin. */
  wires: readonly (readonly Point[])[];
}

/** The pins of a symbol: terminal name and place. */
export function pinsOf(symbol: DrawnSymbol): { terminal: string; at: Point }[] {
  const [x, y] = symbol.at;
  switch (symbol.kind) {
    case 'ground':
      return [{ terminal: 'ground', at: symbol.at }];
    case 'port':
      return [{ terminal: symbol.net, at: symbol.at }];
    case 'tap':
      return [{ terminal: symbol.name, at: symbol.at }];
    case 'op-amp':
    case 'transconductor': {
      const [upper, lower] =
        symbol.upper === 'plus' ? ['inPlus', 'inMinus'] : ['inMinus', 'inPlus'];
      return [
        { terminal: upper, at: [x, y] },
        { terminal: lower, at: [x, y + 2] },
        { terminal: 'out', at: [x + SYMBOL_LENGTH, y + 1] },
      ];
    }
    case 'resistor':
    case 'capacitor':
    case 'inductor':
      return [
        { terminal: 'a', at: symbol.at },
        {
          terminal: 'b',
          at: symbol.toward === 'right' ? [x + SYMBOL_LENGTH, y] : [x, y + SYMBOL_LENGTH],
        },
      ];
  }
}

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
