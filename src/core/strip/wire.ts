import {
  bodyHoles,
  holesUnder,
  keyAt,
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
  for (const s of stretches) {
    const pieces = byNet.get(s.net);
    if (pieces) pieces.push(s);
    else byNet.set(s.net, [s]);
  }
  const held = { taken, wires: new Set<number>() };
  for (const [net, pieces] of byNet) apart += linkUp(net, pieces, held, links);
  return { cuts, links, tight, apart };
}

/** Holes that nothing more can be put in, and those that a link ends in or passes over. */
interface Held {
  taken: Set<number>;
  wires: Set<number>;
}

/** A wire that would join a piece to those that are joined. */
interface Offer {
  link: Omit<Link, 'net'>;
  length: number;
}

/** Link the pieces of a net, the nearest first. @returns how many no wire was found for */
function linkUp(
  net: string,
  [first, ...rest]: readonly Stretch[],
  held: Held,
  links: Link[],
): number {
  const joined = [first];
  const offers = new Map(rest.map((piece) => [piece, offered([first], piece, held)]));
  while (offers.size > 0) {
    let [next, least] = [undefined as Stretch | undefined, undefined as Offer | undefined];
    for (const [piece, offer] of offers)
      if (offer && (!least || offer.length < least.length)) [next, least] = [piece, offer];
    if (!next || !least) return offers.size;
    links.push({ ...least.link, net });
    // No other link ends beneath it, or the two would lie on each other.
    const { from, to } = least.link;
    const covered = new Set([from, ...holesUnder(least.link), to].map(keyOf));
    for (const hole of covered) {
      held.taken.add(hole);
      held.wires.add(hole);
    }
    joined.push(next);
    offers.delete(next);
    for (const [piece, offer] of offers) {
      // A wire that wanted a hole of this one is looked for anew among all; others only beside the new piece.
      const isLost = offer && [offer.link.from, offer.link.to].some((h) => covered.has(keyOf(h)));
      const again = isLost ? offered(joined, piece, held) : offered([next], piece, held, offer);
      offers.set(piece, again);
    }
  }
  return 0;
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

/** The shortest wire from any of what is joined to a piece, where it is shorter than one that is known. */
function offered(
  joined: readonly Stretch[],
  piece: Stretch,
  held: Held,
  known?: Offer,
): Offer | undefined {
  let best = known;
  for (const a of joined) {
    const rows = Math.abs(a.row - piece.row);
    // No link is shorter than the strips are apart.
    if (best && rows >= best.length) continue;
    const link =
      rows === 0 ? along(a, piece, held) : (across(a, piece, held) ?? slanting(a, piece, held));
    if (!link) continue;
    const length = rows + Math.abs(link.from.col - link.to.col);
    if (!best || length < best.length) best = { link, length };
  }
  return best;
}

/** Whether a wire would lie on no other. */
const isClear = (link: Omit<Link, 'net'>, { wires }: Held): boolean =>
  wires.size === 0 || !holesUnder(link).some((hole) => wires.has(keyOf(hole)));

const isFree = (row: number, col: number, taken: ReadonlySet<number>): boolean =>
  !taken.has(keyAt(row, col));

/** How far a column is from the pins of a stretch. */
const beyond = ({ used: [from, to] }: Stretch, col: number): number =>
  Math.max(0, from - col, col - to);

/**
 * Straight up or down, where both have a free hole near what they join: what a column is away from both
 * is least between where the later begins and the earlier ends, and grows to either side of that.
 */
function across(a: Stretch, b: Stretch, held: Held): Omit<Link, 'net'> | undefined {
  const [from, to] = [Math.max(a.from, b.from), Math.min(a.to, b.to)];
  if (from > to) return undefined;
  const begins = Math.max(a.used[0], b.used[0]);
  const ends = Math.min(a.used[1], b.used[1]);
  const middle = Math.min(to, Math.max(from, Math.min(begins, ends)));
  const { taken } = held;
  const at = (col: number) => ({ from: { row: a.row, col }, to: { row: b.row, col } });
  const isOpen = (col: number) =>
    isFree(a.row, col, taken) && isFree(b.row, col, taken) && isClear(at(col), held);
  let right = middle;
  while (right <= to && !isOpen(right)) right++;
  let left = middle - 1;
  while (left >= from && !isOpen(left)) left--;
  if (right > to && left < from) return undefined;
  const away = (col: number) => beyond(a, col) + beyond(b, col);
  return at(right > to || (left >= from && away(left) < away(right)) ? left : right);
}

/** Slanting, where no column has room in both: from the free hole of one that is nearest to the other. */
function slanting(a: Stretch, b: Stretch, held: Held): Omit<Link, 'net'> | undefined {
  const { taken } = held;
  const from = freeNear(a, (b.from + b.to) / 2, taken);
  const to = from === undefined ? undefined : freeNear(b, from, taken);
  if (from === undefined || to === undefined) return undefined;
  const link = { from: { row: a.row, col: from }, to: { row: b.row, col: to } };
  return isClear(link, held) ? link : undefined;
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
function along(a: Stretch, b: Stretch, held: Held): Omit<Link, 'net'> | undefined {
  const { taken } = held;
  const [left, right] = a.from < b.from ? [a, b] : [b, a];
  let from = left.to;
  while (from >= left.from && !isFree(left.row, from, taken)) from--;
  let to = right.from;
  while (to <= right.to && !isFree(right.row, to, taken)) to++;
  if (from < left.from || to > right.to) return undefined;
  const link = { from: { row: left.row, col: from }, to: { row: right.row, col: to } };
  return isClear(link, held) ? link : undefined;
}
