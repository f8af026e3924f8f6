import { PART_KINDS } from '@/core/parts';
import { FACINGS, type Facing } from '@/core/parts/geometry';
import type { PartKind } from '@/core/parts/part-kind';
import type { Drawing, DrawnSymbol, LabelSide, Point } from './drawing';

const SIDES: readonly string[] = ['above', 'below', 'left', 'right'];
/** What a sketch calls a kind: its noun, in one word. */
const BY_WORD = new Map(PART_KINDS.map((k) => [k.noun.replaceAll(' ', '-'), k]));

/**
 * A drawing written down in words, one symbol or wire each, apart by new lines or slashes:
 *
 *   in 0,6        out 22,7         a port
 *   out 22,7 low                   ... with a name of its own
 *   tap high 12,3                  a further output, with its name
 *   input second 2,9               a further input, with its name
 *   ground 4,9
 *   name b1 2,9                    a net’s name: places with the same name are joined
 *   resistor R1 2,6 right          a part: kind, id, place, which way it points
 *   capacitor C1 6,7 down left     ... and where its label stands
 *   op-amp A1 14,6 minus           an amplifier: upper input and which it is
 *   op-amp A1 14,6 with supplyPlus ... with an optional pin
 *   0,6 2,6 2,9                    a wire through these points
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

function symbol(words: string[]): DrawnSymbol {
  const [word, ...rest] = words;
  if (word === 'in' || word === 'out')
    return { kind: 'port', name: rest[1] ?? word, flow: word, net: word, at: point(rest[0]) };
  if (word === 'ground') return { kind: 'ground', at: point(rest[0]) };
  if (word === 'name') return { kind: 'name', name: rest[0], at: point(rest[1]) };
  if (word === 'tap' || word === 'input') {
    const flow = word === 'tap' ? 'out' : 'in';
    return { kind: 'port', name: rest[0], flow, net: rest[0], at: point(rest[1]) };
  }
  const kind = BY_WORD.get(word);
  if (!kind) throw new Error(`No symbol: “${words.join(' ')}”.`);
  const [id, at, ...lie] = rest;
  return { kind: kind.kind, id, at: point(at), ...lieOf(kind, lie, words.join(' ')) };
}

/** How a part lies, from the words behind its place. */
function lieOf({ symbol: its }: PartKind, words: readonly string[], line: string) {
  let toward: Facing | undefined;
  let mirrored = false;
  let label: LabelSide | undefined;
  const drawn: string[] = [];
  for (const word of words) {
    if (word === its.flipped || word === 'flipped') mirrored = true;
    else if (toward === undefined && FACINGS.includes(word as Facing)) toward = word as Facing;
    else if (SIDES.includes(word)) label = word as LabelSide;
    else if (its.pins.some((p) => p.optional && p.name === word)) drawn.push(word);
    else if (word !== its.upright && word !== 'with') throw new Error(`No symbol: “${line}”.`);
  }
  return {
    ...(toward === undefined || toward === 'right' ? {} : { toward }),
    ...(mirrored ? { mirrored } : {}),
    ...(label ? { label } : {}),
    ...(drawn.length > 0 ? { with: drawn } : {}),
  };
}
