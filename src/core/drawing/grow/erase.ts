import { isPart, isPort, pinsOf, type Drawing, type DrawnSymbol, type Point } from '../drawing';
import { readNets } from '../nets';
import { cornersOf } from './route';

const key = ([x, y]: Point): string => `${x},${y}`;
const pointOf = (k: string): Point => {
  const [x, y] = k.split(',').map(Number);
  return [x, y];
};

/** The drawing without a part, and without the lines and grounds that only led to it. */
export function erase(drawing: Drawing, id: string): Drawing {
  const symbols = drawing.symbols.filter((s) => !isPart(s) || s.id !== id);
  return pruned({ symbols, wires: drawing.wires });
}

/**
 * The drawing without loose ends: lines that end in nothing, grounds and names that nothing is
 * joined to.
 */
export function pruned(drawing: Drawing): Drawing {
  const nets = readNets(drawing);
  // Wires as unit steps, net by net: two nets may cross at a point, but never share a step.
  const ways = new Map<string, Map<string, Set<string>>>();
  const join = (net: string, a: string, b: string) => {
    const own = ways.get(net) ?? new Map<string, Set<string>>();
    ways.set(net, own);
    own.set(a, (own.get(a) ?? new Set()).add(b));
    own.set(b, (own.get(b) ?? new Set()).add(a));
  };
  for (const wire of drawing.wires) {
    const net = nets.netAt(wire[0]) ?? '';
    for (let i = 1; i < wire.length; i++) {
      const [from, to] = [wire[i - 1], wire[i]];
      const step = [Math.sign(to[0] - from[0]), Math.sign(to[1] - from[1])];
      for (let p = from; p[0] !== to[0] || p[1] !== to[1];) {
        const next: Point = [p[0] + step[0], p[1] + step[1]];
        join(net, key(p), key(next));
        p = next;
      }
    }
  }
  let symbols = [...drawing.symbols];
  const wires: Point[][] = [];
  const held = new Set(symbols.filter((s) => isPart(s) || isPort(s)).flatMap(pinKeys));
  const marked = new Map<string, DrawnSymbol[]>();
  for (const s of symbols)
    if (!isPart(s) && !isPort(s)) marked.set(key(s.at), [...(marked.get(key(s.at)) ?? []), s]);
  for (const [net, own] of ways) {
    trim(own, (k) => held.has(k) || marked.has(k));
    // A ground or a name at a loose end holds nothing if no pin is on this piece.
    for (const piece of piecesOf(own))
      if (![...piece].some((k) => held.has(k))) for (const k of piece) own.delete(k);
    wires.push(...linesOf(own, (k) => held.has(k) || marked.has(k)));
    ways.set(net, own);
  }
  const led = new Set([...ways.values()].flatMap((own) => [...own.keys()]));
  symbols = symbols.filter(
    (s) => isPart(s) || isPort(s) || led.has(key(s.at)) || held.has(key(s.at)),
  );
  return { symbols, wires };
}

const pinKeys = (symbol: DrawnSymbol): string[] => pinsOf(symbol).map((p) => key(p.at));

/** Take loose ends away, step by step. */
function trim(own: Map<string, Set<string>>, holds: (k: string) => boolean): void {
  const loose = [...own].filter(([k, next]) => next.size === 1 && !holds(k)).map(([k]) => k);
  for (let k = loose.pop(); k !== undefined; k = loose.pop()) {
    const [next] = own.get(k) ?? [];
    own.delete(k);
    if (next === undefined) continue;
    const its = own.get(next)!;
    its.delete(k);
    if (its.size === 0) own.delete(next);
    else if (its.size === 1 && !holds(next)) loose.push(next);
  }
}

function piecesOf(own: ReadonlyMap<string, ReadonlySet<string>>): Set<string>[] {
  const seen = new Set<string>();
  const pieces: Set<string>[] = [];
  for (const start of own.keys()) {
    if (seen.has(start)) continue;
    const piece = new Set<string>();
    const open = [start];
    for (let k = open.pop(); k !== undefined; k = open.pop()) {
      if (piece.has(k)) continue;
      piece.add(k);
      seen.add(k);
      open.push(...(own.get(k) ?? []));
    }
    pieces.push(piece);
  }
  return pieces;
}

/** Unit steps as polylines from knot to knot: ends, branchings, pins. */
function linesOf(
  own: ReadonlyMap<string, ReadonlySet<string>>,
  holds: (k: string) => boolean,
): Point[][] {
  const isKnot = (k: string) => holds(k) || own.get(k)!.size !== 2;
  const used = new Set<string>();
  const lines: Point[][] = [];
  const walk = (from: string, next: string) => {
    const points = [from];
    let [before, at] = [from, next];
    for (;;) {
      used.add(`${before} ${at}`).add(`${at} ${before}`);
      points.push(at);
      if (isKnot(at) || at === from) break;
      const on = [...own.get(at)!].find((k) => k !== before)!;
      [before, at] = [at, on];
    }
    lines.push(cornersOf(points.map(pointOf)));
  };
  for (const k of own.keys())
    if (isKnot(k)) for (const next of own.get(k)!) if (!used.has(`${k} ${next}`)) walk(k, next);
  // Rings without a knot.
  for (const [k, next] of own) for (const n of next) if (!used.has(`${k} ${n}`)) walk(k, n);
  return lines;
}
