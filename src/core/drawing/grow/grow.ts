import { ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { FACINGS, stepOf, type Facing, type Lie } from '@/core/parts/geometry';
import {
  isName,
  isPart,
  pinsOf,
  type Drawing,
  type DrawnSymbol,
  type LabelSide,
  type PlacedPin,
  type Point,
} from '../drawing';
import { readNets } from '../nets';
import { groupsOf, pinName, portName, sameGroups, type PinName } from './groups';
import { BARS, bodyPoints, Paper, wordPoints } from './paper';
import { distancesTo, route } from './route';

/*
 * A drawing grows by one symbol at a time: a place is looked for where what it joins is near, where
 * it lies as a reader expects it, and where neither lines nor words are covered; then its pins are
 * led there. The same step draws a graft, a traced circuit part by part, and a whole net list.
 */

/** What a pin of a new symbol is joined to. */
export type Join =
  | { to: 'ground' }
  /** The net at this point of the drawing; one that a supply feeds is better reached upwards. */
  | { to: 'net'; at: Point; supply?: boolean }
  /** Nothing yet; pins of one new symbol that say the same are joined among themselves. */
  | { to: 'open'; as: string };

export interface NewSymbol {
  /** The symbol lying at a place. */
  at: (place: Point, lie: Lie) => DrawnSymbol;
  lies: readonly Lie[];
  /** By terminal. */
  joins: Readonly<Record<string, Join>>;
}

export interface Wishes {
  /** Where it should stand, and how, if that can be. */
  near?: Point;
  like?: Lie;
  /** How far to the right its first pin should stand. */
  column?: number;
  /** Only here. */
  fixed?: Point;
}

interface Candidate {
  symbol: DrawnSymbol;
  pins: PlacedPin[];
  /** Of the place itself, and with the least that its wires can cost. */
  cost: number;
  bound: number;
}

/** So many places are tried in full before the best of them is taken. */
const TRIED = 48;

/** The lies of a kind of part, upright ones alone for those that are hard to read otherwise. */
export function liesOf(kind: string): Lie[] {
  const { words } = partKindOf(kind).symbol;
  if (words === 'along') {
    const lies: Lie[] = FACINGS.map((toward) => ({ toward }));
    return kind === 'potentiometer' ? lies.flatMap((l) => [l, { ...l, mirrored: true }]) : lies;
  }
  // A supply hangs over what it feeds.
  if (partKindOf(kind).symbol.pins.length === 1) return [{}];
  return [{}, { mirrored: true }, { toward: 'left' }, { toward: 'left', mirrored: true }];
}

/**
 * The drawing with one more symbol, its pins joined as asked.
 *
 * @throws Error if no place can be found: a defect, as there is always room outside
 */
export function grow(drawing: Drawing, part: NewSymbol, wishes: Wishes = {}): Drawing {
  const paper = new Paper(drawing);
  const nets = new Map<string, number>();
  const open = new Map<string, number>();
  const distances = new Map<number, Float32Array>();
  for (const [terminal, join] of Object.entries(part.joins)) {
    const net = netOf(paper, join, open);
    nets.set(terminal, net);
    if (join.to === 'net' && !distances.has(net)) distances.set(net, distancesTo(paper, net));
  }
  const wanted = groupsWith(drawing, part);
  const candidates = candidatesOf(paper, part, wishes, nets, distances);
  let best: { cost: number; drawing: Drawing } | undefined;
  for (const candidate of candidates.slice(0, TRIED)) {
    if (best && candidate.bound >= best.cost) break;
    const found = led(paper, drawing, part, candidate, nets, distances, best?.cost ?? Infinity);
    const isBetter = found && found.cost < (best?.cost ?? Infinity);
    if (isBetter && sameGroups(groupsOf(found.drawing), wanted)) best = found;
  }
  return best?.drawing ?? named(drawing, part, candidates, wanted);
}

/** The number of the net that a pin is joined to; open ends that say the same share one. */
function netOf(paper: Paper, join: Join, open: Map<string, number>): number {
  if (join.to === 'net') return paper.netAt(join.at);
  if (join.to === 'ground') return paper.freshNet();
  const net = open.get(join.as) ?? paper.freshNet();
  open.set(join.as, net);
  return net;
}

/** Places this much worse than the best are not looked at more closely. */
const SLACK = 30;

/** Places of the new symbol, the most promising first. */
function candidatesOf(
  paper: Paper,
  part: NewSymbol,
  wishes: Wishes,
  nets: ReadonlyMap<string, number>,
  distances: ReadonlyMap<number, Float32Array>,
): Candidate[] {
  const taken = takenPoints(paper);
  const { room, width } = paper;
  const found: Candidate[] = [];
  let least = Infinity;
  for (const lie of part.lies) {
    const symbol = part.at([0, 0], lie);
    const pins = pinsOf(symbol);
    // Everything as steps from the place, row by row.
    const offset = ([x, y]: Point) => y * width + x;
    const body = isPart(symbol) ? bodyPoints(symbol) : [];
    const bodySteps = body.map(offset);
    const pinSteps = pins.map((p) => offset(p.at));
    const reaching = isPart(symbol) && partKindOf(symbol.kind).symbol.pins.length === 1;
    const wordSteps = isPart(symbol) ? wordPoints(symbol).map(offset) : [];
    const besideSteps = besidePoints(isPart(symbol) ? body : pins.map((p) => p.at)).map(offset);
    const grounds = pins.filter((p) => part.joins[p.terminal].to === 'ground');
    const ways = pins.flatMap((p) => {
      const join = part.joins[p.terminal];
      const [dx, dy] = stepOf(p.leaves);
      const to = join.to === 'net' ? distances.get(nets.get(p.terminal)!) : undefined;
      return join.to === 'ground' ? [] : [{ out: offset([p.at[0] + dx, p.at[1] + dy]), to }];
    });
    const leftmost = Math.min(...pins.map((p) => p.at[0]));
    const own = lieCost(part, pins, symbol, wishes);
    for (const place of placesOn(paper, wishes)) {
      const i = paper.index(place);
      let cost = own + placeCost(place, leftmost, wishes);
      let wires = 0;
      for (const { out, to } of ways) if (to) wires += 1 + to[i + out];
      if (cost + wires > least + SLACK) continue;
      if (pinSteps.some((step) => taken[i + step]) || bodySteps.some((step) => taken[i + step]))
        continue;
      if (bodySteps.some((step) => room[i + step] === BARS)) continue;
      // A bar is wider than its pin, and a port rounder.
      if (reaching && (paper.body[i - 1] || paper.body[i + 1])) continue;
      if (!isPart(symbol) && room[i] === BARS) continue;
      for (const step of bodySteps) cost += 3 * room[i + step];
      for (const step of wordSteps) if (taken[i + step]) cost += 6;
      if (besideSteps.some((step) => paper.body[i + step])) continue;
      for (const { out } of ways) if (paper.body[i + out]) cost += 8;
      for (const pin of grounds) cost += groundCost(paper, taken, pin, place);
      const bound = cost + wires;
      if (!(bound <= least + SLACK)) continue;
      least = Math.min(least, bound);
      found.push({
        symbol: part.at(place, lie),
        pins: pins.map((p) => ({ ...p, at: [p.at[0] + place[0], p.at[1] + place[1]] })),
        cost,
        bound,
      });
    }
  }
  return found.sort((a, b) => a.bound - b.bound);
}

/** Points that a body, a wire or a pin lies on. */
function takenPoints({ body, corner, right, down, width }: Paper): Uint8Array {
  const taken = new Uint8Array(body.length);
  for (let i = 0; i < taken.length; i++)
    taken[i] =
      body[i] || corner[i] || right[i] || down[i] || right[i - 1] || down[i - width] ? 1 : 0;
  return taken;
}

/** The points around a body: another body there would stand too close. */
function besidePoints(body: readonly Point[]): Point[] {
  const own = new Set(body.map((p) => p.join()));
  const found = new Map<string, Point>();
  for (const [x, y] of body)
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const p: Point = [x + dx, y + dy];
      if (!own.has(p.join())) found.set(p.join(), p);
    }
  return [...found.values()];
}

/** Everywhere on the paper but at its very edge. */
function* placesOn(paper: Paper, { fixed }: Wishes): Generator<Point> {
  if (fixed) {
    yield fixed;
    return;
  }
  const edge = 9;
  for (let y = paper.top + edge; y < paper.top + paper.height - edge; y++)
    for (let x = paper.left + edge; x < paper.left + paper.width - edge; x++) yield [x, y];
}

function placeCost([x, y]: Point, leftmost: number, { near, column }: Wishes): number {
  return (
    (near ? 0.6 * (Math.abs(x - near[0]) + Math.abs(y - near[1])) : 0) +
    (column === undefined ? 0 : 0.5 * Math.abs(x + leftmost - column))
  );
}

/** What a reader minds about how a symbol lies. */
function lieCost(
  part: NewSymbol,
  pins: PlacedPin[],
  symbol: DrawnSymbol,
  { like }: Wishes,
): number {
  let cost = 0;
  for (const { terminal, leaves } of pins) {
    const join = part.joins[terminal];
    if (join.to === 'ground') cost += byFacing(leaves, 'down', 10);
    if (join.to === 'net' && join.supply && pins.length > 1) cost += byFacing(leaves, 'up', 7);
  }
  if (!isPart(symbol)) return cost;
  const vertical = (toward: Facing = 'right') => toward === 'down' || toward === 'up';
  const { toward, mirrored } = symbol;
  if (like && vertical(like.toward) !== vertical(toward)) cost += 8;
  const { words } = partKindOf(symbol.kind).symbol;
  if (words === 'along') {
    const rests = pins.some((p) => {
      const join = part.joins[p.terminal];
      return join.to === 'ground' || (join.to === 'net' && join.supply);
    });
    return cost + (vertical(toward) && !rests && !like ? 2 : 0);
  }
  return cost + (toward === 'left' ? 6 : 0) + (mirrored ? 1.5 : 0);
}

const byFacing = (leaves: Facing, wanted: Facing, price: number): number =>
  leaves === wanted
    ? 0
    : Math.abs(FACINGS.indexOf(leaves) - FACINGS.indexOf(wanted)) === 2
      ? 2 * price
      : price;

/** The ground symbol of a pin: at it, or a corner away where the pin does not point down. */
function groundAt({ at, leaves }: PlacedPin): Point[] {
  const [dx, dy] = stepOf(leaves);
  if (leaves === 'down') return [at];
  const out: Point = [at[0] + dx, at[1] + dy];
  return leaves === 'up' ? [at, out, [out[0] + 1, out[1]]] : [at, out, [out[0], out[1] + 1]];
}

function groundCost(paper: Paper, taken: Uint8Array, pin: PlacedPin, [px, py]: Point): number {
  const points = groundAt(pin).map(([x, y]): Point => [x + px, y + py]);
  const [x, y] = points[points.length - 1];
  // Its bars take the points beside and under it.
  const bars: Point[] = [
    [x - 1, y],
    [x + 1, y],
    [x, y + 1],
  ];
  if (points.slice(1).some((p) => taken[paper.index(p)])) return Infinity;
  if (bars.some((p) => paper.body[paper.index(p)])) return Infinity;
  return bars.reduce((sum, p) => sum + (taken[paper.index(p)] ? 4 : 0), 0);
}

/** The drawing with a symbol at its place and wires from its pins. */
function led(
  paper: Paper,
  drawing: Drawing,
  part: NewSymbol,
  { symbol, pins, cost: own }: Candidate,
  nets: ReadonlyMap<string, number>,
  distances: ReadonlyMap<number, Float32Array>,
  most: number,
): { cost: number; drawing: Drawing } | undefined {
  const tried = paper.copy();
  tried.symbol(symbol, (_, terminal) => nets.get(terminal)!);
  const symbols = [...drawing.symbols, symbol];
  const wires = [...drawing.wires];
  let cost = own;
  const grounds = pins.filter((p) => part.joins[p.terminal].to === 'ground');
  for (const pin of grounds) {
    const points = groundAt(pin);
    const at = points[points.length - 1];
    const net = nets.get(pin.terminal)!;
    if (points.length > 1) {
      wires.push(points);
      tried.wire(points, net);
    }
    symbols.push({ kind: 'ground', at });
    tried.symbol({ kind: 'ground', at }, () => net);
  }
  const seen = new Set<number>();
  for (const pin of pins) {
    const join = part.joins[pin.terminal];
    const net = nets.get(pin.terminal)!;
    const isFirst = !seen.has(net);
    seen.add(net);
    if (join.to === 'ground' || (join.to === 'open' && isFirst)) continue;
    // The pin itself is no place to end at.
    tried.corner[tried.index(pin.at)] = 0;
    // What its net was before the symbol came is good enough to be led to.
    const to = distances.get(net) ?? distancesTo(tried, net);
    const found = route(tried, pin.at, pin.leaves, net, to, most - cost);
    if (!found) return undefined;
    cost += found.cost;
    wires.push(found.points);
    tried.wire(found.points, net);
  }
  return { cost, drawing: { symbols, wires } };
}

/** Where no wire finds its way: nets joined by a name at both places. */
function named(
  drawing: Drawing,
  part: NewSymbol,
  candidates: readonly Candidate[],
  wanted: PinName[][],
): Drawing {
  for (const { symbol, pins } of candidates) {
    const symbols = [...drawing.symbols, symbol];
    const wires = [...drawing.wires];
    const own = new Map<string, string>();
    for (const pin of pins) {
      const join = part.joins[pin.terminal];
      if (join.to === 'ground') {
        const points = groundAt(pin);
        if (points.length > 1) wires.push(points);
        symbols.push({ kind: 'ground', at: points[points.length - 1] });
        continue;
      }
      const key = join.to === 'net' ? join.at.join() : join.as;
      const isFirst = !own.has(key);
      if (join.to === 'open' && isFirst) {
        own.set(key, '');
        continue;
      }
      const there = join.to === 'net' ? join.at : pins.find((p) => joinKey(part, p) === key)!.at;
      const name = own.get(key) || nameAt(symbols, there) || freeName(symbols);
      own.set(key, name);
      if (!nameAt(symbols, there)) symbols.push({ kind: 'name', name, at: there });
      symbols.push({ kind: 'name', name, at: pin.at });
    }
    const found = { symbols, wires };
    if (sameGroups(groupsOf(found), wanted)) return found;
  }
  throw new ReedError('range', 'There is no room for it there.');
}

const joinKey = (part: NewSymbol, { terminal }: PlacedPin): string => {
  const join = part.joins[terminal];
  return join.to === 'open' ? join.as : '';
};

const nameAt = (symbols: readonly DrawnSymbol[], at: Point): string | undefined =>
  symbols.filter(isName).find((s) => s.at[0] === at[0] && s.at[1] === at[1])?.name;

/** A letter that no net is called by. */
function freeName(symbols: readonly DrawnSymbol[]): string {
  const used = new Set(symbols.flatMap((s) => ('name' in s ? [s.name] : [])));
  for (let n = 0; ; n++) {
    const name = `${String.fromCharCode(97 + (n % 26))}${n < 26 ? '' : Math.floor(n / 26)}`;
    if (!used.has(name)) return name;
  }
}

/** The nets that the drawing will have: as before, with the new pins where they belong. */
function groupsWith(drawing: Drawing, part: NewSymbol): PinName[][] {
  const before = groupsOf(drawing);
  const symbol = part.at([0, 0], part.lies[0]);
  const nameOf = (terminal: string): PinName =>
    isPart(symbol) ? pinName(symbol.id, terminal) : portName(terminal);
  const atPoint = pinsByPoint(drawing);
  const groups = before.map((g) => [...g]);
  const fresh = new Map<string, PinName[]>();
  for (const { terminal } of pinsOf(symbol)) {
    const join = part.joins[terminal];
    if (join.to === 'net') {
      const there = atPoint(join.at);
      groups.find((g) => g.includes(there))!.push(nameOf(terminal));
    } else if (join.to === 'open')
      fresh.set(join.as, [...(fresh.get(join.as) ?? []), nameOf(terminal)]);
    else {
      const ground = groups.find((g) => g.includes('0'));
      if (ground) ground.push(nameOf(terminal));
      else groups.push([nameOf(terminal), '0']);
    }
  }
  return [...groups, ...fresh.values()];
}

/** Some pin of the net at a point. */
function pinsByPoint(drawing: Drawing): (at: Point) => PinName {
  const read = readNets(drawing);
  const byNet = new Map<string, PinName>();
  for (const { name, net } of read.ports) byNet.set(net, portName(name));
  for (const { id, nets } of read.parts)
    for (const [pin, net] of Object.entries(nets)) byNet.set(net, pinName(id, pin));
  return (at) => byNet.get(read.netAt(at) ?? '') ?? '';
}

/** A part as a new symbol. */
export function newPart(
  kind: string,
  id: string,
  joins: Readonly<Record<string, Join>>,
  label?: LabelSide,
): NewSymbol {
  const drawn = partKindOf(kind).symbol.pins.filter((p) => p.optional && p.name in joins);
  return {
    at: (at, { toward, mirrored }) => ({
      kind,
      id,
      at,
      ...(toward === undefined || toward === 'right' ? {} : { toward }),
      ...(mirrored ? { mirrored } : {}),
      ...(label ? { label } : {}),
      ...(drawn.length > 0 ? { with: drawn.map((p) => p.name) } : {}),
    }),
    lies: liesOf(kind),
    joins,
  };
}

/** A port as a new symbol: inputs face right, outputs are reached from the left. */
export const newPort = (name: string, flow: 'in' | 'out', net: string, join: Join): NewSymbol => ({
  at: (at) => ({ kind: 'port', name, flow, net, at }),
  lies: [{}],
  joins: { [name]: join },
});
