import {
  bodyHoles,
  keyOf,
  pinHoles,
  type Board,
  type Component,
  type Hole,
  type Link,
} from './board';

/** A pin of a part in its hole. */
export interface Soldered {
  part: string;
  pin: string;
  net: string;
  hole: Hole;
}

/** A stretch of a strip between cuts. */
interface Stretch {
  row: number;
  from: number;
  to: number;
  net: string;
  /** Between its first and its last pin. */
  used: readonly [number, number];
}

/** What wires up parts as they stand. */
export interface Wiring {
  cuts: Hole[];
  links: Link[];
  /** Pairs of pins on one strip, of different nets, with no hole between them to cut at. */
  tight: number;
  /** Pieces of nets that no link was found for. */
  apart: number;
}

export const solderedOn = (components: readonly Component[], parts: Board['parts']): Soldered[] =>
  components.flatMap((c) =>
    pinHoles(c, parts[c.id]).map((hole, k) => ({
      part: c.id,
      pin: c.pins[k].name,
      net: c.pins[k].net,
      hole,
    })),
  );

/**
 * Cuts and links for parts as they stand: a strip is cut between neighbours of different nets, and the
 * pieces of each net are linked, straight up or down where both have a free hole in one column, from
 * piece to nearest piece (the least tree, R. C. Prim, Bell Syst. Tech. J. 36, 1957).
 */
export function wired(
  components: readonly Component[],
  { rows, cols, parts }: Pick<Board, 'rows' | 'cols' | 'parts'>,
): Wiring {
  const soldered = solderedOn(components, parts);
  const taken = new Set(soldered.map((s) => keyOf(s.hole)));
  for (const c of components) for (const hole of bodyHoles(c, parts[c.id])) taken.add(keyOf(hole));
  const { cuts, stretches, tight } = cutUp(soldered, rows, cols);
  for (const cut of cuts) taken.add(keyOf(cut));
  const links: Link[] = [];
  let apart = 0;
  const byNet = new Map<string, Stretch[]>();
  for (const s of stretches) byNet.set(s.net, [...(byNet.get(s.net) ?? []), s]);
  for (const [net, pieces] of byNet) {
    const [first, ...rest] = pieces;
    const joined = [first];
    const waiting = new Set(rest);
    while (waiting.size > 0) {
      const found = nearestLink(joined, waiting, taken);
      if (!found) {
        apart += waiting.size;
        break;
      }
      const { link, piece } = found;
      links.push({ ...link, net });
      taken.add(keyOf(link.from));
      taken.add(keyOf(link.to));
      joined.push(piece);
      waiting.delete(piece);
    }
  }
  return { cuts, links, tight, apart };
}

function cutUp(
  soldered: readonly Soldered[],
  rows: number,
  cols: number,
): { cuts: Hole[]; stretches: Stretch[]; tight: number } {
  const byRow = new Map<number, Soldered[]>();
  for (const s of soldered) {
    const row = byRow.get(s.hole.row);
    if (row) row.push(s);
    else byRow.set(s.hole.row, [s]);
  }
  const cuts: Hole[] = [];
  const stretches: Stretch[] = [];
  let tight = 0;
  for (const [row, pins] of byRow) {
    if (row < 0 || row >= rows) continue;
    pins.sort((a, b) => a.hole.col - b.hole.col);
    let from = 0;
    let first = pins[0].hole.col;
    pins.forEach((pin, k) => {
      const next = pins[k + 1] as Soldered | undefined;
      if (next?.net === pin.net) return;
      const used = [first, pin.hole.col] as const;
      first = next?.hole.col ?? first;
      if (!next) {
        stretches.push({ row, from, to: cols - 1, net: pin.net, used });
        return;
      }
      const gap = next.hole.col - pin.hole.col;
      if (gap < 2) {
        tight++;
        stretches.push({ row, from, to: pin.hole.col, net: pin.net, used });
        from = next.hole.col;
        return;
      }
      // Half way, so that both stretches keep free holes.
      const col = pin.hole.col + (gap >> 1);
      cuts.push({ row, col });
      stretches.push({ row, from, to: col - 1, net: pin.net, used });
      from = col + 1;
    });
  }
  return { cuts, stretches, tight };
}

/** The shortest straight wire from what is joined to what is not. */
function nearestLink(
  joined: readonly Stretch[],
  waiting: ReadonlySet<Stretch>,
  taken: ReadonlySet<number>,
): { link: Omit<Link, 'net'>; piece: Stretch } | undefined {
  let best: { link: Omit<Link, 'net'>; piece: Stretch; length: number } | undefined;
  for (const a of joined)
    for (const b of waiting) {
      const link =
        a.row === b.row ? along(a, b, taken) : (across(a, b, taken) ?? slanting(a, b, taken));
      if (!link) continue;
      const length = Math.abs(a.row - b.row) + Math.abs(link.from.col - link.to.col);
      if (!best || length < best.length) best = { link, piece: b, length };
    }
  return best;
}

const isFree = (row: number, col: number, taken: ReadonlySet<number>): boolean =>
  !taken.has(keyOf({ row, col }));

/** How far a column is from the pins of a stretch. */
const beyond = ({ used: [from, to] }: Stretch, col: number): number =>
  Math.max(0, from - col, col - to);

/** Straight up or down, where both have a free hole near what they join. */
function across(a: Stretch, b: Stretch, taken: ReadonlySet<number>): Omit<Link, 'net'> | undefined {
  const [from, to] = [Math.max(a.from, b.from), Math.min(a.to, b.to)];
  let best: { col: number; away: number } | undefined;
  for (let col = from; col <= to; col++) {
    const away = beyond(a, col) + beyond(b, col);
    if ((best && away >= best.away) || !isFree(a.row, col, taken) || !isFree(b.row, col, taken))
      continue;
    best = { col, away };
  }
  return best && { from: { row: a.row, col: best.col }, to: { row: b.row, col: best.col } };
}

/** Slanting, where no column has room in both: from the free hole of one that is nearest to the other. */
function slanting(
  a: Stretch,
  b: Stretch,
  taken: ReadonlySet<number>,
): Omit<Link, 'net'> | undefined {
  const from = freeNear(a, (b.from + b.to) / 2, taken);
  const to = from === undefined ? undefined : freeNear(b, from, taken);
  if (from === undefined || to === undefined) return undefined;
  return { from: { row: a.row, col: from }, to: { row: b.row, col: to } };
}

function freeNear({ row, from, to }: Stretch, near: number, taken: ReadonlySet<number>) {
  let best: number | undefined;
  for (let col = from; col <= to; col++)
    if (
      isFree(row, col, taken) &&
      (best === undefined || Math.abs(col - near) < Math.abs(best - near))
    )
      best = col;
  return best;
}

/** Along one strip, over what lies between: from the nearest free hole of one to that of the other. */
function along(a: Stretch, b: Stretch, taken: ReadonlySet<number>): Omit<Link, 'net'> | undefined {
  const [left, right] = a.from < b.from ? [a, b] : [b, a];
  let from = left.to;
  while (from >= left.from && !isFree(left.row, from, taken)) from--;
  let to = right.from;
  while (to <= right.to && !isFree(right.row, to, taken)) to++;
  if (from < left.from || to > right.to) return undefined;
  return { from: { row: left.row, col: from }, to: { row: right.row, col: to } };
}
