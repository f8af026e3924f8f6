/*
 * Stripboard: holes on a grid of a tenth of an inch, those of one row joined by a strip of copper. A
 * strip is cut at a hole; wires link holes. Everything is seen from the side of the parts.
 */

/** Rows are strips, from the top; columns are holes along them, from the left. */
export interface Hole {
  row: number;
  col: number;
}

/** A part as it stands: which way it lies, and how far apart the ends of one with two wires are. */
export interface Standing {
  at: Hole;
  /** Quarter turns clockwise. */
  turn: 0 | 1 | 2 | 3;
  /** Holes from one end to the other, for a part with two wires. */
  span: number;
}

/** Something that is put on a board: pins in the order of its footprint, each with its net. */
export interface Component {
  id: string;
  footprint: FootprintName;
  pins: readonly { name: string; net: string }[];
}

export interface Link {
  from: Hole;
  to: Hole;
  net: string;
}

/** A board: where each part stands, by id, where strips are cut and what wires link. */
export interface Board {
  rows: number;
  cols: number;
  parts: Readonly<Record<string, Standing>>;
  cuts: readonly Hole[];
  links: readonly Link[];
}

interface Footprint {
  /** Where its pins are from the first, unturned. */
  pins: (span: number) => readonly Hole[];
  /** Holes that its body covers besides. */
  body: (span: number) => readonly Hole[];
  /** Least and greatest distance of its two ends, where those are wires. */
  spans?: readonly [least: number, most: number];
}

const column = (count: number, step = 1): Hole[] =>
  Array.from({ length: count }, (_, k) => ({ row: k * step, col: 0 }));
const inside = (span: number): Hole[] =>
  Array.from({ length: span - 1 }, (_, k) => ({ row: k + 1, col: 0 }));

/** What parts stand on: two wires, three or four pins in a line, eight in two rows, one wire away from the board. */
export const FOOTPRINTS = {
  'two wires': {
    pins: (span) => [
      { row: 0, col: 0 },
      { row: span, col: 0 },
    ],
    body: inside,
    spans: [2, 7],
  },
  'three in line': { pins: () => column(3), body: () => [] },
  'three apart': {
    pins: () => column(3, 2),
    body: () => inside(4).filter(({ row }) => row % 2 === 1),
  },
  'four in line': { pins: () => column(4), body: () => [] },
  'eight in two rows': {
    pins: () => [
      ...column(4),
      ...column(4)
        .map(({ row }) => ({ row, col: 3 }))
        .reverse(),
    ],
    body: () => column(4).flatMap(({ row }) => [1, 2].map((col) => ({ row, col }))),
  },
  pad: { pins: () => column(1), body: () => [] },
} as const satisfies Record<string, Footprint>;

export type FootprintName = keyof typeof FOOTPRINTS;

const footprintOf = (name: FootprintName): Footprint => FOOTPRINTS[name];

/** How far apart the ends of a part may be; nothing for one whose pins are where they are. */
export const spansOf = ({ footprint }: Component): Footprint['spans'] =>
  footprintOf(footprint).spans;

function turned({ row, col }: Hole, turn: Standing['turn']): Hole {
  switch (turn) {
    case 0:
      return { row, col };
    case 1:
      return { row: col, col: -row };
    case 2:
      return { row: -row, col: -col };
    case 3:
      return { row: -col, col: row };
  }
}

interface Shape {
  pins: readonly Hole[];
  body: readonly Hole[];
}

const shapes = new Map<FootprintName, Shape[]>();
/** Beyond any span there is. */
const SPANS = 16;

/** A footprint as it lies, from its first pin: worked out once, since a search asks for it all the time. */
function shapeOf(name: FootprintName, { turn, span }: Standing): Shape {
  let known = shapes.get(name);
  if (!known) shapes.set(name, (known = []));
  return (known[turn * SPANS + span] ??= {
    pins: footprintOf(name)
      .pins(span)
      .map((hole) => turned(hole, turn)),
    body: footprintOf(name)
      .body(span)
      .map((hole) => turned(hole, turn)),
  });
}

const placed = (holes: readonly Hole[], { row, col }: Hole): Hole[] =>
  holes.map((hole) => ({ row: row + hole.row, col: col + hole.col }));

/** The hole of each pin. */
export const pinHoles = ({ footprint }: Component, standing: Standing): Hole[] =>
  placed(shapeOf(footprint, standing).pins, standing.at);

/** Holes under its body, where no other part can have a pin. */
export const bodyHoles = ({ footprint }: Component, standing: Standing): Hole[] =>
  placed(shapeOf(footprint, standing).body, standing.at);

/** Holes that a wire passes over between its ends. */
export function holesUnder({ from, to }: Omit<Link, 'net'>): Hole[] {
  const [down, along] = [to.row - from.row, to.col - from.col];
  const steps = Math.max(Math.abs(down), Math.abs(along));
  return Array.from({ length: Math.max(0, steps - 1) }, (_, k) => ({
    row: Math.round(from.row + (down * (k + 1)) / steps),
    col: Math.round(from.col + (along * (k + 1)) / steps),
  }));
}

/** Parts whose bodies a link passes beneath: it is soldered before them. */
export const partsOver = (
  link: Omit<Link, 'net'>,
  components: readonly Component[],
  parts: Board['parts'],
): string[] => {
  const under = new Set(holesUnder(link).map(keyOf));
  return components
    .filter((c) => bodyHoles(c, parts[c.id]).some((hole) => under.has(keyOf(hole))))
    .map((c) => c.id);
};

/** A key of a hole within any board that is planned here. */
export const keyAt = (row: number, col: number): number => row * 1000 + col;
export const keyOf = ({ row, col }: Hole): number => keyAt(row, col);
