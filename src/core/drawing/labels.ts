import { partKindOf } from '@/core/parts';
import { isName, isPart, SYMBOL_LENGTH, type Drawing, type PartOnPaper } from './drawing';
import { bodiesOf, bodyOf, boxShape, linesOf, overlap, type Box, type Shape } from './shapes';

/** What is written beside a part. */
export interface PartLabel {
  name: string;
  /** The value, edited where it stands; op-amps have none. */
  value?: string;
  /** Quiet lines below, apart by line breaks; those that find no room are left out. */
  note?: string;
}

export type TextRole = 'name' | 'value' | 'note' | 'port';

/** Sizes of the words in pixels, whatever the scale of the drawing. */
export const TEXT_SIZE: Record<TextRole, number> = { name: 12, value: 14, note: 11, port: 12 };
/** Width of a letter over its height: upper bounds of the two faces in use. */
const LETTER: Record<TextRole, number> = { name: 0.62, value: 0.6, note: 0.56, port: 0.62 };

/** One line of words at its place: the anchor is a point of the baseline; pixels. */
export interface PlacedText {
  role: TextRole;
  text: string;
  x: number;
  y: number;
  anchor: 'start' | 'middle' | 'end';
}

export interface Layout {
  /** Words of each part, by its id; parts without room for any are absent. */
  parts: ReadonlyMap<string, readonly PlacedText[]>;
  /** Names of ports and taps, in the order of the drawing's symbols. */
  ports: readonly PlacedText[];
  /** Everything that is drawn, words included; pixels. */
  extent: Box;
}

type Anchor = PlacedText['anchor'];

/** The box around a line of words. */
export function textBox({ role, text, x, y, anchor }: PlacedText): Box {
  const size = TEXT_SIZE[role];
  const width = text.length * size * LETTER[role];
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, top: y - size * 0.78, right: left + width, bottom: y + size * 0.24 };
}

/**
 * Find a place for every word of a drawing where it covers no symbol, no line and no other word.
 * Each part tries the side its drawing asks for first, then others, then fewer words: a note gives
 * way before a value, and a name stands on the value's line before it goes.
 *
 * @param scale pixels of a grid unit
 */
export function placeLabels(
  drawing: Drawing,
  labels: Readonly<Record<string, PartLabel>>,
  scale: number,
): Layout {
  const taken: Shape[] = [...bodiesOf(drawing, scale), ...linesOf(drawing, scale)];
  const free = (lines: readonly PlacedText[]): boolean =>
    lines.every((line) => {
      const box = boxShape(textBox(line));
      return !taken.some((other) => overlap(box, other));
    });
  const take = (lines: readonly PlacedText[]) =>
    taken.push(...lines.map((line) => boxShape(textBox(line))));

  const ports = drawing.symbols.flatMap((symbol): PlacedText[] => {
    if (isPart(symbol) || !('name' in symbol)) return [];
    const text = symbol.name;
    const places = portPlaces(symbol.at, text, scale);
    // A name that joins two places must be read, whatever it covers.
    const place = places.find((p) => free([p])) ?? (isName(symbol) ? places[0] : undefined);
    if (!place) return [];
    take([place]);
    return [place];
  });

  const parts = new Map<string, PlacedText[]>();
  const symbols = drawing.symbols.filter((s): s is PartOnPaper => isPart(s) && s.id in labels);
  // First what must be read, then the notes where there is still room.
  for (const symbol of symbols) {
    const { name, value } = labels[symbol.id];
    const found = [
      { name, value },
      ...(value === undefined ? [] : [{ value: `${name} ${value}` }, { value }]),
    ]
      .flatMap((words) => places(symbol, words, scale))
      .find(free);
    if (!found) continue;
    take(found);
    parts.set(symbol.id, found);
  }
  for (const { id } of symbols) {
    const { note } = labels[id];
    for (const text of note?.split('\n') ?? []) {
      const placed = parts.get(id);
      const last = placed?.[placed.length - 1];
      if (!last) break;
      const below: PlacedText = { ...last, role: 'note', text, y: last.y + LINE_HEIGHT.note };
      if (!free([below])) break;
      take([below]);
      parts.set(id, [...placed, below]);
    }
  }
  return { parts, ports, extent: extentOf(taken) };
}

const LINE_HEIGHT = { name: 15, value: 16, note: 14 } as const;
const GAP = 4;

interface Words {
  name?: string;
  value?: string;
}

/** Blocks of words about a part, the wanted place first. */
function places(symbol: PartOnPaper, words: Words, scale: number): PlacedText[][] {
  const [x, y] = [symbol.at[0] * scale, symbol.at[1] * scale];
  const its = partKindOf(symbol.kind).symbol;
  const { toward = 'right' } = symbol;
  if (its.words === 'triangle' && toward === 'right') return amplifierPlaces(x, y, words, scale);
  if (its.words !== 'along') return placesAround(bodyOf(symbol, scale).box, words);
  if (toward === 'left' || toward === 'up')
    // Words do not care which end is which.
    return places(
      toward === 'left'
        ? { ...symbol, at: [symbol.at[0] - SYMBOL_LENGTH, symbol.at[1]], toward: 'right' }
        : { ...symbol, at: [symbol.at[0], symbol.at[1] - SYMBOL_LENGTH], toward: 'down' },
      words,
      scale,
    );
  const middle = (SYMBOL_LENGTH / 2) * scale;
  const out = Math.max(...its.body.map((p) => Math.abs(p[1]))) * scale + GAP;
  if (toward === 'right') {
    const above = (cx: number, anchor: Anchor) => block(words, cx, y - out, anchor, 'above');
    const below = (cx: number, anchor: Anchor) => block(words, cx, y + out, anchor, 'below');
    const centre = x + middle;
    const split = splitBlock(words, centre, y - out, y + out);
    const aside = [centre, x + 0.5 * scale, x + (SYMBOL_LENGTH - 0.5) * scale];
    const anchors: Anchor[] = ['middle', 'start', 'end'];
    const overAndUnder = aside.flatMap((cx, i) => [above(cx, anchors[i]), below(cx, anchors[i])]);
    return symbol.label === 'above'
      ? [above(centre, 'middle'), ...split, ...overAndUnder]
      : symbol.label === 'below'
        ? [below(centre, 'middle'), ...split, ...overAndUnder]
        : [...split, below(centre, 'middle'), ...overAndUnder];
  }
  const beside = (side: 1 | -1, cy: number) =>
    block(words, x + side * out, cy, side < 0 ? 'end' : 'start', 'beside');
  const first = symbol.label === 'left' ? -1 : 1;
  const heights = [0, -0.6, 0.6, -1.1, 1.1, -1.6, 1.6].map((h) => y + middle + h * scale);
  return [
    beside(first, heights[0]),
    ...heights.slice(1, 3).map((cy) => beside(first, cy)),
    ...heights.map((cy) => beside(first === 1 ? -1 : 1, cy)),
    ...heights.slice(3).map((cy) => beside(first, cy)),
  ];
}

/** To the right of a body, to the left, above, below, and at its corners. */
function placesAround({ left, top, right, bottom }: Box, words: Words): PlacedText[][] {
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
  const at = (x: number, y: number, anchor: Anchor, side: 'above' | 'below' | 'beside') =>
    block(words, x, y, anchor, side);
  const heights = [cy, cy - 8, cy + 8, top + 6, bottom - 6];
  return [
    ...heights.map((y) => at(right + GAP, y, 'start', 'beside')),
    ...heights.map((y) => at(left - GAP, y, 'end', 'beside')),
    at(cx, top - GAP, 'middle', 'above'),
    at(cx, bottom + GAP, 'middle', 'below'),
    at(right + GAP, top, 'start', 'above'),
    at(right + GAP, bottom, 'start', 'below'),
    at(left - GAP, top, 'end', 'above'),
    at(left - GAP, bottom, 'end', 'below'),
    at(right - GAP, top - GAP, 'start', 'above'),
    at(right - GAP, bottom + GAP, 'start', 'below'),
  ];
}

/** Under the slope of the triangle, above it, or behind its tip. */
function amplifierPlaces(x: number, y: number, words: Words, scale: number): PlacedText[][] {
  const tip = SYMBOL_LENGTH * scale;
  const at = (dx: number, dy: number, anchor: Anchor = 'start') =>
    block(words, x + dx, y + dy, anchor, 'below');
  return [
    at(tip * 0.5, scale * 2.15),
    at(tip * 0.5, scale * 2.5),
    at(tip * 0.5, -scale * 1.1),
    at(tip * 0.62, scale * 1.9),
    at(tip * 0.3, scale * 2.9),
    at(tip * 0.3, -scale * 1.6),
    at(0, scale * 3 + 2),
    at(0, -scale * 0.9 - LINE_HEIGHT.name - 6),
    // Inside, where the triangle is high enough for a word.
    block(words, x + tip * 0.36, y + scale - 8, 'middle', 'below'),
  ];
}

/** Lines under each other: ending above a height, beginning under it, or about it. */
function block(
  { name, value }: Words,
  x: number,
  y: number,
  anchor: Anchor,
  side: 'above' | 'below' | 'beside',
): PlacedText[] {
  const lines: { role: 'name' | 'value'; text: string }[] = [];
  if (name !== undefined) lines.push({ role: 'name', text: name });
  if (value !== undefined) lines.push({ role: 'value', text: value });
  const height = lines.reduce((sum, l) => sum + LINE_HEIGHT[l.role], 0);
  let top = side === 'above' ? y - height : side === 'below' ? y : y - height / 2;
  return lines.map(({ role, text }) => {
    top += LINE_HEIGHT[role];
    return { role, text, x, y: top - 4, anchor };
  });
}

/** The name above and the value below, where there are both. */
function splitBlock({ name, value }: Words, x: number, above: number, below: number) {
  if (name === undefined || value === undefined) return [];
  return [
    [
      ...block({ name }, x, above, 'middle', 'above'),
      ...block({ value }, x, below, 'middle', 'below'),
    ],
  ];
}

function portPlaces(at: readonly [number, number], text: string, scale: number): PlacedText[] {
  const [x, y] = [at[0] * scale, at[1] * scale];
  const place = (dx: number, dy: number, anchor: Anchor): PlacedText => ({
    role: 'port',
    text,
    x: x + dx,
    y: y + dy,
    anchor,
  });
  return [
    place(0, -10, 'middle'),
    place(0, 18, 'middle'),
    place(8, -6, 'start'),
    place(8, 14, 'start'),
    place(-8, -6, 'end'),
    place(-8, 14, 'end'),
    place(9, 4, 'start'),
    place(-9, 4, 'end'),
  ];
}

function extentOf(shapes: readonly Shape[]): Box {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { box } of shapes) {
    left = Math.min(left, box.left);
    top = Math.min(top, box.top);
    right = Math.max(right, box.right);
    bottom = Math.max(bottom, box.bottom);
  }
  return { left, top, right, bottom };
}

/** Largest scale of a drawing that stands by itself. */
const NATURAL = 22;
const LEAST = 1.5;

/** A drawing with its words, as large as a room allows. */
export function fitLabels(
  drawing: Drawing,
  labels: Readonly<Record<string, PartLabel>>,
  room: { width: number; height: number },
): { scale: number; layout: Layout } {
  let scale = NATURAL;
  for (let n = 0; ; n++) {
    const layout = placeLabels(drawing, labels, scale);
    const { left, top, right, bottom } = layout.extent;
    const over = Math.max((right - left) / room.width, (bottom - top) / room.height);
    if (over <= 1 || scale <= LEAST || n >= 30) return { scale, layout };
    // Words do not shrink with the drawing: go a little further than in proportion.
    scale = Math.max(LEAST, scale / Math.min(1.6, Math.max(1.02, over * 1.01)));
  }
}
