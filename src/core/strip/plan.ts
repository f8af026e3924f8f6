import { ReedError } from '@/core/errors';
import { seededRandom } from '@/core/random';
import {
  bodyHoles,
  holesUnder,
  keyOf,
  pinHoles,
  spansOf,
  type Board,
  type Component,
  type Standing,
} from './board';
import { wired } from './wire';

/** Where parts may be put while they are arranged; what is not used is cut off in the end. */
const ROOM = { rows: 30, cols: 44 };
/** Holes left free around what is used. */
const MARGIN = 1;

/** What counts, in holes of board: what is wrong far more than what is merely long. */
const COSTS = {
  wrong: 1000,
  link: 6,
  linkHole: 0.4,
  /** A hole of a link beneath a body, where it has to be soldered first, or over what is soldered. */
  under: 3,
  over: 2,
  cut: 2,
  spanHole: 0.6,
  hole: 0.5,
};

/** Tries of the search: at first it takes what is worse by so much, in the end nothing. */
const TRIES = 12_000;
const HOT = 12;
const COLD = 0.3;
/** So many times the heat worse is never taken. */
const NEVER = 30;
/** Tries between two stops. */
const SLICE = 100;
/** How far a part is moved at most in one try. */
const FAR = 4;

type Parts = Record<string, Standing>;

/**
 * How good an arrangement is: nothing wrong, few links and cuts, little board.
 *
 * @param limit from which it does not matter how much more it costs: most tries put one part on another,
 *   and need not be wired to be refused
 */
export function costOf(
  components: readonly Component[],
  parts: Board['parts'],
  limit = Infinity,
): number {
  const holders = new Set<number>();
  const bodies = new Set<number>();
  let [wrong, spans] = [0, 0];
  let [top, bottom, left, right] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const c of components) {
    const standing = parts[c.id];
    if (spansOf(c)) spans += standing.span;
    const body = bodyHoles(c, standing);
    for (const hole of body) bodies.add(keyOf(hole));
    for (const hole of [...pinHoles(c, standing), ...body]) {
      const isOn = hole.row >= 0 && hole.row < ROOM.rows && hole.col >= 0 && hole.col < ROOM.cols;
      const key = keyOf(hole);
      if (!isOn || holders.has(key)) wrong++;
      holders.add(key);
      top = Math.min(top, hole.row);
      bottom = Math.max(bottom, hole.row);
      left = Math.min(left, hole.col);
      right = Math.max(right, hole.col);
    }
  }
  const room =
    COSTS.wrong * wrong +
    COSTS.spanHole * spans +
    COSTS.hole * (bottom - top + 1) * (right - left + 1);
  if (room >= limit) return room;
  const { cuts, links, tight, apart } = wired(components, { ...ROOM, parts });
  for (const { from, to } of links) holders.add(keyOf(from)).add(keyOf(to));
  let [long, under, over] = [0, 0, 0];
  for (const link of links) {
    long += Math.abs(link.from.row - link.to.row) + Math.abs(link.from.col - link.to.col);
    for (const hole of holesUnder(link)) {
      if (bodies.has(keyOf(hole))) under++;
      else if (holders.has(keyOf(hole))) over++;
    }
  }
  return (
    room +
    COSTS.wrong * (tight + apart) +
    COSTS.link * links.length +
    COSTS.linkHole * long +
    COSTS.under * under +
    COSTS.over * over +
    COSTS.cut * cuts.length
  );
}

/**
 * A board for components: one after the other is put where it costs least, then parts are moved, turned
 * and stretched by simulated annealing (S. Kirkpatrick, C. D. Gelatt, M. P. Vecchi, Science 220, 1983).
 *
 * @returns a generator that stops between slices, with the part that is done
 * @throws ReedError `range` where no arrangement without a fault was found
 */
export function* planned(components: readonly Component[], seed = 1): Generator<number, Board> {
  const parts: Parts = {};
  const order = [...components].sort((a, b) => b.pins.length - a.pins.length);
  for (const [k, component] of order.entries()) {
    parts[component.id] = bestPlace(order.slice(0, k + 1), parts, component);
    yield (0.3 * (k + 1)) / order.length;
  }
  const random = seededRandom(seed);
  let [here, cost] = [{ ...parts }, costOf(components, parts)];
  let [best, least] = [here, cost];
  for (let n = 0; n < TRIES; n++) {
    const heat = HOT * (COLD / HOT) ** (n / TRIES);
    const component = components[Math.floor(random() * components.length)];
    const there = { ...here, [component.id]: moved(component, here[component.id], random) };
    const next = costOf(components, there, cost + NEVER * heat);
    if (next < cost || random() < Math.exp((cost - next) / heat)) [here, cost] = [there, next];
    if (cost < least) [best, least] = [here, cost];
    if (n % SLICE === 0) yield 0.3 + (0.7 * n) / TRIES;
  }
  if (least >= COSTS.wrong)
    throw new ReedError(
      'range',
      'No arrangement was found in which every part has its holes: plan it in two boards, or give it fewer parts.',
    );
  return cropped(components, best);
}

/** Where a further part costs least, beside and among those that stand. */
function bestPlace(standing: readonly Component[], parts: Parts, component: Component): Standing {
  const used = Object.entries(parts).map(([, s]) => s.at);
  const rows = used.map((h) => h.row);
  const cols = used.map((h) => h.col);
  // Around what stands, and in the middle of the room at first.
  const [top, bottom] = used.length > 0 ? [Math.min(...rows) - 3, Math.max(...rows) + 4] : [10, 10];
  const [left, right] = used.length > 0 ? [Math.min(...cols) - 2, Math.max(...cols) + 5] : [15, 15];
  let best: { standing: Standing; cost: number } | undefined;
  for (let row = Math.max(0, top); row <= Math.min(ROOM.rows - 1, bottom); row++)
    for (let col = Math.max(0, left); col <= Math.min(ROOM.cols - 1, right); col++)
      for (const turn of [0, 2] as const)
        for (const span of spansOf(component) ? [2, 4] : [0]) {
          const there: Standing = { at: { row, col }, turn, span };
          const cost = costOf(standing, { ...parts, [component.id]: there }, best?.cost);
          if (!best || cost < best.cost) best = { standing: there, cost };
        }
  return best!.standing;
}

/** A part somewhere near, turned, or stretched. */
function moved(component: Component, { at, turn, span }: Standing, random: () => number): Standing {
  const step = () => Math.round((2 * random() - 1) * FAR);
  const spans = spansOf(component);
  const what = random();
  if (spans && what < 0.25) {
    const [least, most] = spans;
    return { at, turn, span: least + Math.floor(random() * (most - least + 1)) };
  }
  if (what < 0.4) return { at, turn: Math.floor(random() * 4) as Standing['turn'], span };
  return { at: { row: at.row + step(), col: at.col + step() }, turn, span };
}

/** The board as large as it has to be. */
function cropped(components: readonly Component[], parts: Parts): Board {
  const { links } = wired(components, { ...ROOM, parts });
  const holes = [
    ...components.flatMap((c) => [...pinHoles(c, parts[c.id]), ...bodyHoles(c, parts[c.id])]),
    ...links.flatMap(({ from, to }) => [from, to]),
  ];
  const top = Math.min(...holes.map((h) => h.row)) - MARGIN;
  const left = Math.min(...holes.map((h) => h.col)) - MARGIN;
  const rows = Math.max(...holes.map((h) => h.row)) - top + 1 + MARGIN;
  const cols = Math.max(...holes.map((h) => h.col)) - left + 1 + MARGIN;
  const shifted = Object.fromEntries(
    Object.entries(parts).map(([id, s]) => [
      id,
      { ...s, at: { row: s.at.row - top, col: s.at.col - left } },
    ]),
  );
  return wiredBoard(components, { rows, cols, parts: shifted });
}

/** Parts as they stand, with cuts and links made anew. */
export function wiredBoard(
  components: readonly Component[],
  place: Pick<Board, 'rows' | 'cols' | 'parts'>,
): Board {
  const { cuts, links } = wired(components, place);
  return { ...place, cuts, links };
}
