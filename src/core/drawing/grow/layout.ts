import { partKindOf } from '@/core/parts';
import { boundsOf, pinsOf, isPart, type Drawing, type Point } from '../drawing';
import { grow, newPart, newPort, type Join, type NewSymbol, type Wishes } from './grow';

/** A circuit to be drawn: parts with the net at each pin, and ports. */
export interface NetList {
  parts: readonly { id: string; kind: string; nets: Readonly<Record<string, string>> }[];
  ports: readonly { name: string; flow: 'in' | 'out'; net: string; main?: true }[];
  ground: string;
}

/** Grid units from one rank of nets to the next. */
const COLUMN = 8;

/**
 * A drawing of a circuit, part by part along the signal: what lies nearer to the input is drawn
 * first and further to the left, what is joined to a supply hangs from above, and what is joined to
 * ground stands on it.
 */
export function drawn(circuit: NetList): Drawing {
  const ranks = ranksOf(circuit);
  const supplies = new Set(
    circuit.parts.filter((p) => p.kind === 'supply').flatMap((p) => Object.values(p.nets)),
  );
  let drawing: Drawing = { symbols: [], wires: [] };
  /** Some drawn point of each net. */
  const seen = new Map<string, Point>();
  const joinOf = (net: string): Join => {
    if (net === circuit.ground) return { to: 'ground' };
    const at = seen.get(net);
    return at ? { to: 'net', at, supply: supplies.has(net) } : { to: 'open', as: net };
  };
  const put = (symbol: NewSymbol, nets: Readonly<Record<string, string>>, wishes: Wishes) => {
    drawing = grow(drawing, symbol, wishes);
    const last = drawing.symbols.findLast((s) => isPart(s) || s.kind === 'port')!;
    for (const { terminal, at } of pinsOf(last))
      if (!seen.has(nets[terminal])) seen.set(nets[terminal], at);
  };
  const putPort = ({ name, flow, net, main }: NetList['ports'][number]) => {
    const own = main ? flow : net;
    const column = (ranks.get(net) ?? 0) * COLUMN + (flow === 'out' ? COLUMN : 0);
    put(newPort(name, flow, own, joinOf(net)), { [name]: net }, { column });
  };
  for (const port of circuit.ports) if (port.flow === 'in') putPort(port);
  const waiting = new Set(circuit.parts);
  while (waiting.size > 0) {
    const next = nextOf([...waiting], seen, ranks, circuit.ground, supplies);
    waiting.delete(next);
    const joins = Object.fromEntries(
      Object.entries(next.nets).map(([pin, net]) => [pin, joinOf(net)]),
    );
    const first = seen.get(Object.values(next.nets)[0]);
    put(
      newPart(next.kind, next.id, joins),
      next.nets,
      // A supply hangs over everything.
      next.kind === 'supply' && first && drawing.symbols.length > 0
        ? { near: [first[0], boundsOf(drawing).top - 3] }
        : { column: columnOf(next, ranks) },
    );
  }
  for (const port of circuit.ports) if (port.flow === 'out') putPort(port);
  return drawing;
}

type ListedPart = NetList['parts'][number];

/** Where a part begins: a little behind the net it is reached by. */
function columnOf({ nets }: ListedPart, ranks: ReadonlyMap<string, number>): number {
  const own = Object.values(nets).flatMap((n) => ranks.get(n) ?? []);
  return own.length === 0 ? 0 : Math.min(...own) * COLUMN + 2;
}

/** The part to draw next: along the signal, devices before what hangs on them. */
function nextOf(
  waiting: readonly ListedPart[],
  seen: ReadonlyMap<string, Point>,
  ranks: ReadonlyMap<string, number>,
  ground: string,
  supplies: ReadonlySet<string>,
): ListedPart {
  const score = ({ kind, nets }: ListedPart): number => {
    const signal = Object.values(nets).filter((n) => n !== ground && !supplies.has(n));
    const joined = signal.filter((n) => seen.has(n)).length;
    const rank = Math.min(...signal.map((n) => ranks.get(n) ?? 99), 99);
    const pins = partKindOf(kind).symbol.pins.length;
    // What is joined to nothing drawn yet waits; a supply comes with the first part that needs it.
    const loose = joined === 0 && kind !== 'supply' ? 1000 : 0;
    const late = kind === 'supply' && ![...supplies].some((n) => seen.has(n)) ? 500 : 0;
    return loose + late + 10 * rank - 3 * joined - (pins > 2 ? 4 : 0);
  };
  return waiting.reduce((best, part) => (score(part) < score(best) ? part : best));
}

/**
 * How many parts a net lies behind the input. Amplifiers are passed from their inputs to their
 * outputs only, so that what is fed back does not draw the output forward.
 */
function ranksOf({ parts, ports, ground }: NetList): Map<string, number> {
  const supplies = new Set(
    parts.filter((p) => p.kind === 'supply').flatMap((p) => Object.values(p.nets)),
  );
  const still = (net: string) => net === ground || supplies.has(net);
  const ranks = new Map<string, number>();
  const open: string[] = [];
  const reach = (net: string, rank: number) => {
    if (still(net) || (ranks.get(net) ?? Infinity) <= rank) return;
    ranks.set(net, rank);
    open.push(net);
  };
  for (const { flow, net } of ports) if (flow === 'in') reach(net, 0);
  // Without an input the signal begins at what drives the circuit.
  if (open.length === 0)
    for (const { kind, nets } of parts)
      if (kind === 'source' || kind === 'current-source')
        for (const net of Object.values(nets)) reach(net, 0);
  const unreached = () =>
    parts.flatMap((p) => Object.values(p.nets)).find((n) => !still(n) && !ranks.has(n));
  for (;;) {
    for (let net = open.shift(); net !== undefined; net = open.shift())
      for (const part of parts) {
        const pins = Object.entries(part.nets);
        const reached = pins.filter(([, n]) => n === net).map(([pin]) => pin);
        if (reached.length === 0) continue;
        const backwards = part.nets.out !== undefined && reached.every((pin) => pin === 'out');
        if (backwards) continue;
        for (const [, other] of pins) reach(other, ranks.get(net)! + 1);
      }
    const next = unreached();
    if (next === undefined) return ranks;
    reach(next, 0);
  }
}
