import { ReedError } from '@/core/errors';
import { FACINGS } from '@/core/parts/geometry';
import { acrossPins, partKindOf, withArticle } from '@/core/parts';
import { quoted } from '@/core/text';
import {
  boundsOf,
  isName,
  isPart,
  isPort,
  pinsOf,
  type Drawing,
  type PartOnPaper,
  type Point,
} from '../drawing';
import { readNets } from '../nets';
import { erase, pruned } from './erase';
import { grow, newPart, newPort, type Join } from './grow';

/*
 * What people do to a circuit that exists: a part across another, in line with it, from here to
 * there or to ground; another kind in its place; out; or a wire instead of it. Each takes a drawing
 * and gives the changed one.
 */

/** A new part: its kind and what it will be called. */
export interface Addition {
  kind: string;
  id: string;
}

/** Somewhere in a drawing: a pin of a part, or a net by its name. */
export type Place = { part: string; pin: string } | { net: string };

/** @throws ReedError `range` for a part that is not drawn */
export function partIn(drawing: Drawing, id: string): PartOnPaper {
  const found = drawing.symbols.find((s) => isPart(s) && s.id === id);
  if (found && isPart(found)) return found;
  throw new ReedError('range', `There is no part ${quoted(id)} here.`);
}

/** A part with both its ends where another has its own. */
export function putAcross(drawing: Drawing, part: string, addition: Addition): Drawing {
  const partner = partIn(drawing, part);
  const kind = partKindOf(partner.kind);
  const [first, second] = acrossPins(kind);
  if (first === second)
    throw new ReedError('range', `Nothing can be put across ${withArticle(kind)}.`);
  const place = (pin: string) => placeJoin(drawing, { part, pin });
  return between(drawing, addition, place(first), place(second), partner);
}

/** A part from one place to another. */
export function putBetween(drawing: Drawing, from: Place, to: Place, addition: Addition): Drawing {
  const [a, b] = [placeJoin(drawing, from), placeJoin(drawing, to)];
  if (sameNet(drawing, a, b))
    throw new ReedError('range', 'Both places are the same point of the circuit.');
  return between(drawing, addition, a, b);
}

/** Where the pins of a new part go: to places, to ground, or nowhere yet. */
export type Ends = Readonly<Record<string, Place | 'ground' | 'open'>>;

/** A part with each of its pins joined as said; what is not said waits to be joined. */
export function put(drawing: Drawing, addition: Addition, ends: Ends): Drawing {
  const kind = partKindOf(addition.kind);
  const asked = kind.symbol.pins.filter((p) => !p.optional || p.name in ends);
  const joins = Object.fromEntries(
    asked.map(({ name }): [string, Join] => {
      const end = ends[name] ?? 'open';
      if (end === 'ground') return [name, { to: 'ground' }];
      return [name, end === 'open' ? { to: 'open', as: name } : placeJoin(drawing, end)];
    }),
  );
  if (Object.values(joins).every((j) => j.to === 'open' || j.to === 'ground'))
    throw new ReedError(
      'range',
      'What is joined to nothing cannot exist: begin at a point of the circuit.',
    );
  const first = Object.values(joins).find((j) => j.to === 'net');
  return grow(
    drawing,
    newPart(addition.kind, addition.id, joins),
    first?.to === 'net' ? { column: first.at[0] + 1 } : {},
  );
}

/** The main output led from another net. */
export function listenAt(drawing: Drawing, place: Place): Drawing {
  const at = placeJoin(drawing, place);
  if (at.to !== 'net') throw new ReedError('range', 'Nothing can be heard at ground.');
  const out = drawing.symbols.find((s) => isPort(s) && s.net === 'out');
  const name = out && isPort(out) ? out.name : 'out';
  const bare = pruned({ symbols: drawing.symbols.filter((s) => s !== out), wires: drawing.wires });
  return grow(bare, newPort(name, 'out', 'out', stillThere(bare, at, place)), {
    column: boundsOf(bare).right,
  });
}

/** A further output with a name, beside the main one; an empty name takes those at the place away. */
export function markOutput(drawing: Drawing, place: Place, name: string): Drawing {
  const at = placeJoin(drawing, place);
  if (at.to !== 'net') throw new ReedError('range', 'Nothing can be heard at ground.');
  if (name === '') {
    const nets = readNets(drawing);
    const net = nets.netAt(at.at);
    const symbols = drawing.symbols.filter(
      (s) => !isPort(s) || s.flow === 'in' || s.net === 'out' || nets.netAt(s.at) !== net,
    );
    return pruned({ symbols, wires: drawing.wires });
  }
  const named = drawing.symbols.filter((s) => isPort(s) || isName(s));
  if (named.some((s) => s.name === name || ('net' in s && s.net === name)))
    throw new ReedError('range', `There is a ${quoted(name)} already.`);
  return grow(drawing, newPort(name, 'out', name, at), { column: boundsOf(drawing).right });
}

/** How a part lies: its place on the grid, and where it points. */
export type Stand = Pick<PartOnPaper, 'at' | 'toward' | 'mirrored'>;

/**
 * A part standing elsewhere on the grid, or turned; its wires follow.
 *
 * @throws ReedError `range` where there is no room for it
 */
export function movePart(drawing: Drawing, part: string, to: Stand): Drawing {
  const old = partIn(drawing, part);
  const bare = erase(drawing, part);
  const { at, ...lie } = to;
  const symbol = newPart(old.kind, part, joinsOf(drawing, bare, old));
  const changed = grow(bare, { ...symbol, lies: [lie] }, { fixed: at });
  const now = partIn(changed, part);
  if (now.at[0] !== at[0] || now.at[1] !== at[1])
    throw new ReedError('range', `There is no room for ${part} there.`);
  return changed;
}

/** The part a step further along the grid, or a quarter turn round where it stands. */
export function standOf({ at, toward, mirrored }: Stand, change: { by: Point } | 'turned'): Stand {
  const lie = mirrored === undefined ? {} : { mirrored };
  if (change !== 'turned')
    return { at: [at[0] + change.by[0], at[1] + change.by[1]], toward, ...lie };
  const next = FACINGS[(FACINGS.indexOf(toward ?? 'right') + 1) % FACINGS.length];
  return { at, toward: next, ...lie };
}

/** A net called by a name, written beside it; an empty name takes it away. */
export function nameNet(drawing: Drawing, place: Place, name: string): Drawing {
  const at = placeJoin(drawing, place);
  if (at.to !== 'net') throw new ReedError('range', 'Ground has its name.');
  const nets = readNets(drawing);
  const net = nets.netAt(at.at);
  const others = drawing.symbols.filter((s) => !isName(s) || nets.netAt(s.at) !== net);
  if (name === '') return { symbols: others, wires: drawing.wires };
  if (nets.nets.includes(name) && name !== net)
    throw new ReedError('range', `There is a net ${quoted(name)} already.`);
  return { symbols: [...others, { kind: 'name', name, at: at.at }], wires: drawing.wires };
}

/** A place as a join on a drawing from which something was taken away. */
function stillThere(drawing: Drawing, at: Join, place: Place): Join {
  return at.to === 'net' && readNets(drawing).netAt(at.at) !== undefined
    ? at
    : placeJoin(drawing, place);
}

/** A part from a place to ground. */
export function putToGround(drawing: Drawing, from: Place, addition: Addition): Drawing {
  const a = placeJoin(drawing, from);
  if (a.to === 'ground') throw new ReedError('range', 'This point is ground itself.');
  return between(drawing, addition, a, { to: 'ground' });
}

/** A part in a row with another, on the side of one of its pins: the other’s end moves away from its net. */
export function putInLine(
  drawing: Drawing,
  part: string,
  pin: string | undefined,
  addition: Addition,
): Drawing {
  const other = partIn(drawing, part);
  const kind = partKindOf(other.kind);
  const at = pin ?? kind.inLine ?? acrossPins(kind)[1];
  const pins = pinsOf(other);
  if (!pins.some((p) => p.terminal === at))
    throw new ReedError('range', `${quoted(part)} has no pin ${quoted(at)}.`);
  const bare = erase(drawing, part);
  const joins = joinsOf(drawing, bare, other);
  const moved = grow(
    bare,
    {
      ...newPart(other.kind, part, { ...joins, [at]: { to: 'open', as: 'between' } }, other.label),
      lies: [other],
    },
    { fixed: other.at },
  );
  const end = pinsOf(partIn(moved, part)).find((p) => p.terminal === at)!.at;
  // What the freed net is now joined by may have moved to the end of the part itself.
  const far = joinsOf(drawing, moved, other)[at];
  return between(moved, addition, { to: 'net', at: end }, far, other);
}

/** Another kind of part in the place of one. */
export function swap(drawing: Drawing, part: string, addition: Addition): Drawing {
  const old = partIn(drawing, part);
  const kind = partKindOf(addition.kind);
  const was = partKindOf(old.kind);
  const drawn = pinsOf(old).map((p) => p.terminal);
  const pins = kind.symbol.pins.filter((p) => !p.optional || drawn.includes(p.name));
  if (drawn.length === 2 && pins.length === 3 && kind.symbol.words === 'along') {
    // A potentiometer for a resistor is a variable one.
    const bare = erase(drawing, part);
    const joins = joinsOf(drawing, bare, old);
    return between(bare, addition, joins[drawn[0]], joins[drawn[1]], old);
  }
  if (pins.length !== drawn.length)
    throw new ReedError(
      'range',
      `${withArticle(was)} has ${drawn.length} ends and ${withArticle(kind)} ${pins.length}: take it out and put the other in by hand.`,
    );
  const same = pins.every((p) => drawn.includes(p.name));
  const nameOf = (i: number) => (same ? drawn[i] : pins[i].name);
  const sameShape = pins.every((_, i) => {
    const [x, y] = was.symbol.pins.find((o) => o.name === drawn[i])!.at;
    const its = kind.symbol.pins.find((o) => o.name === nameOf(i))!.at;
    return its[0] === x && its[1] === y && was.symbol.axis === kind.symbol.axis;
  });
  if (sameShape)
    return {
      wires: drawing.wires,
      symbols: drawing.symbols.map((s) =>
        s === old ? { ...old, kind: addition.kind, id: addition.id } : s,
      ),
    };
  const bare = erase(drawing, part);
  const joins = joinsOf(drawing, bare, old);
  return grow(
    bare,
    newPart(
      addition.kind,
      addition.id,
      Object.fromEntries(drawn.map((pin, i) => [nameOf(i), joins[pin]])),
    ),
    { near: old.at, like: old },
  );
}

/** A circuit without a part. */
export function takeOut(drawing: Drawing, part: string): Drawing {
  partIn(drawing, part);
  return erase(drawing, part);
}

/** A wire in the place of a part with two ends. */
export function short(drawing: Drawing, part: string): Drawing {
  const old = partIn(drawing, part);
  const pins = pinsOf(old);
  if (pins.length !== 2)
    throw new ReedError(
      'range',
      `${withArticle(partKindOf(old.kind))} has ${pins.length} ends: only a part with two can be shorted.`,
    );
  const symbols = drawing.symbols.filter((s) => s !== old);
  return pruned({ symbols, wires: [...drawing.wires, pins.map((p) => p.at)] });
}

function between(
  drawing: Drawing,
  { kind, id }: Addition,
  a: Join,
  b: Join,
  partner?: PartOnPaper,
): Drawing {
  const known = partKindOf(kind);
  const [first, second] = acrossPins(known);
  if (first === second)
    throw new ReedError('range', `${withArticle(known)} has a single end: join it by itself.`);
  const rest = known.symbol.pins.filter(
    (p) => !p.optional && p.name !== first && p.name !== second,
  );
  const joins: Record<string, Join> = { [first]: a, [second]: b };
  // A potentiometer between two points begins as a variable resistor; other pins wait to be joined.
  for (const { name } of rest)
    joins[name] = name.startsWith('wiper') ? { ...b } : { to: 'open', as: name };
  return grow(
    drawing,
    newPart(kind, id, joins),
    partner
      ? {
          near: partner.at,
          ...(partKindOf(partner.kind).symbol.words === 'along' ? { like: partner } : {}),
        }
      : {},
  );
}

/** What a place is joined to. */
function placeJoin(drawing: Drawing, place: Place): Join {
  const nets = readNets(drawing);
  if ('net' in place) {
    if (place.net === '0') return { to: 'ground' };
    const pin = pinsOfNet(drawing, place.net)[0];
    if (!pin) throw new ReedError('range', `There is no net ${quoted(place.net)} here.`);
    return { to: 'net', at: pin };
  }
  const part = partIn(drawing, place.part);
  const pin = pinsOf(part).find((p) => p.terminal === place.pin);
  if (!pin) throw new ReedError('range', `${quoted(place.part)} has no pin ${quoted(place.pin)}.`);
  return nets.netAt(pin.at) === '0' ? { to: 'ground' } : { to: 'net', at: pin.at };
}

function sameNet(drawing: Drawing, a: Join, b: Join): boolean {
  if (a.to !== 'net' || b.to !== 'net') return a.to === b.to;
  const nets = readNets(drawing);
  return nets.netAt(a.at) === nets.netAt(b.at);
}

function pinsOfNet(drawing: Drawing, net: string, without?: string): Point[] {
  const nets = readNets(drawing);
  return drawing.symbols
    .filter((s) => (isPart(s) ? s.id !== without : isPort(s)))
    .flatMap((s) => pinsOf(s).map((p) => p.at))
    .filter((at) => nets.netAt(at) === net);
}

/** What the pins of a part were joined to, as far as the drawing without it still has it. */
function joinsOf(drawing: Drawing, bare: Drawing, part: PartOnPaper): Record<string, Join> {
  const nets = readNets(drawing);
  const left = readNets(bare);
  return Object.fromEntries(
    pinsOf(part).map(({ terminal, at }): [string, Join] => {
      const net = nets.netAt(at)!;
      if (net === '0') return [terminal, { to: 'ground' }];
      const pin = pinsOfNet(drawing, net, part.id).find((p) => left.netAt(p) !== undefined);
      return [terminal, pin ? { to: 'net', at: pin } : { to: 'open', as: net }];
    }),
  );
}
