import type { Drawing, DrawnSymbol, LabelSide, Point } from './drawing';

const KINDS = {
  R: 'resistor',
  C: 'capacitor',
  L: 'inductor',
  A: 'op-amp',
  G: 'transconductor',
} as const;

/**
 * A drawing written down in words, one symbol or wire each, apart by new lines or slashes:
 *
 *   in 0,6          out 22,7        a port
 *   tap high 12,3                   a further output, with its name
 *   ground 4,9
 *   R1 2,6 right                    two-terminal part: first pin, direction, where its label stands
 *   C1 6,7 down left
 *   A1 14,6 minus                   op-amp or transconductor: upper input and which it is
 *   0,6 2,6 2,9                     a wire through these points
 *
 * It is read when it is first looked at: of all the topologies there are, a path shows a few.
 *
 * @throws Error at the first look, for a line that says nothing known: a defect of the topology's file
 */
export function sketch(text: string): Drawing {
  let drawing: Drawing | undefined;
  const look = () => (drawing ??= read(text));
  return {
    get symbols() {
      return look().symbols;
    },
    get wires() {
      return look().wires;
    },
  };
}

function read(text: string): Drawing {
  const symbols: DrawnSymbol[] = [];
  const wires: Point[][] = [];
  for (const line of text.split(/[\n/]/)) {
    const words = line.trim().split(/\s+/);
    if (words[0] === '') continue;
    if (/^-?\d/.test(words[0])) {
      if (words.length > 1) wires.push(words.map(point));
    } else symbols.push(symbol(words));
  }
  return { symbols, wires };
}

function point(text: string): Point {
  const [x, y] = text.split(',').map(Number);
  if (!Number.isFinite(x) || !Number.isFinite(y)) throw new Error(`No point: “${text}”.`);
  return [x, y];
}

function symbol([id, ...rest]: string[]): DrawnSymbol {
  if (id === 'in' || id === 'out') return { kind: 'port', net: id, at: point(rest[0]) };
  if (id === 'ground') return { kind: 'ground', at: point(rest[0]) };
  if (id === 'tap') return { kind: 'tap', name: rest[0], at: point(rest[1]) };
  const kind = KINDS[id[0] as keyof typeof KINDS];
  const at = point(rest[0]);
  if (kind === 'op-amp' || kind === 'transconductor')
    return { kind, id, at, upper: rest[1] as 'plus' | 'minus' };
  if (kind === undefined || (rest[1] !== 'right' && rest[1] !== 'down'))
    throw new Error(`No symbol: “${[id, ...rest].join(' ')}”.`);
  return {
    kind,
    id,
    at,
    toward: rest[1],
    ...(rest[2] ? { label: rest[2] as LabelSide } : {}),
  };
}
