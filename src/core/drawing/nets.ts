import { isName, isPart, isPort, pinsOf, type Drawing, type Point } from './drawing';

/** A drawn part with the local net at each of its pins. */
export interface DrawnPart {
  id: string;
  kind: string;
  nets: Record<string, string>;
}

/** A place where the circuit is joined to others. */
export interface DrawnPort {
  name: string;
  flow: 'in' | 'out';
  net: string;
}

export interface DrawnNets {
  parts: DrawnPart[];
  /** Inputs and outputs in the order they are drawn; the nets of the main ones are `in` and `out`. */
  ports: DrawnPort[];
  /** Local net names; ground is `0`. */
  nets: string[];
  /** Places where three or more lines meet: drawn as dots. */
  dots: Point[];
  /** Wires that are neither level nor upright, in words: they join nothing. */
  slanted: string[];
  /** Those, and nets that hang on one pin: what a finished drawing has none of. */
  faults: string[];
  /** The net at a point of the drawing, if any. */
  netAt(point: Point): string | undefined;
}

interface Segment {
  from: Point;
  to: Point;
}

/** Read the net list off a drawing. */
export function readNets(drawing: Drawing): DrawnNets {
  const segments = drawing.wires.flatMap((wire) =>
    wire.slice(1).map((to, i): Segment => ({ from: wire[i], to })),
  );
  const pins = drawing.symbols.flatMap((symbol) =>
    pinsOf(symbol).map((pin) => ({ ...pin, symbol })),
  );
  const ends: Point[] = [
    ...drawing.wires.flatMap((w) => [w[0], w[w.length - 1]]),
    ...pins.map((p) => p.at),
  ];
  const parent = new Map<string, string>();
  const find = (k: string): string => {
    const up = parent.get(k);
    return up === undefined || up === k ? k : find(up);
  };
  const join = (a: string, b: string) => void parent.set(find(a), find(b));

  // Every run of a wire is one piece; pieces and pins join where an end touches a run.
  for (const { from, to } of segments) join(key(from), key(to));
  for (const point of ends) {
    for (const segment of segments)
      if (touches(segment, point)) join(key(point), key(segment.from));
  }

  // A name written in two places is one net.
  const written = new Map<string, Point>();
  for (const { symbol, at } of pins) {
    if (!isName(symbol)) continue;
    const first = written.get(symbol.name);
    if (first) join(key(first), key(at));
    else written.set(symbol.name, at);
  }

  const names = new Map<string, string>();
  const claim = (at: Point, name: string) => {
    const root = find(key(at));
    if (!names.has(root)) names.set(root, name);
  };
  // What is joined to ground is ground, whatever else is written there.
  for (const { at, symbol } of pins) if (symbol.kind === 'ground') claim(at, '0');
  for (const { at, symbol } of pins) if (isPort(symbol)) claim(at, symbol.net);
  for (const { at, symbol } of pins) if (isName(symbol)) claim(at, symbol.name);
  const used = new Set(names.values());
  let inner = 0;
  const nameOf = (at: Point): string => {
    const root = find(key(at));
    if (!names.has(root)) {
      do inner++;
      while (used.has(`n${inner}`));
      names.set(root, `n${inner}`);
    }
    return names.get(root)!;
  };

  const parts: DrawnPart[] = [];
  const ports: DrawnPort[] = [];
  const pinsPerNet = new Map<string, number>();
  for (const { at } of pins) pinsPerNet.set(nameOf(at), (pinsPerNet.get(nameOf(at)) ?? 0) + 1);
  for (const symbol of drawing.symbols) {
    if (isPort(symbol))
      ports.push({ name: symbol.name, flow: symbol.flow, net: nameOf(symbol.at) });
    if (!isPart(symbol)) continue;
    const nets = Object.fromEntries(
      pinsOf(symbol).map(({ terminal, at }) => [terminal, nameOf(at)]),
    );
    parts.push({ id: symbol.id, kind: symbol.kind, nets });
  }
  return {
    parts,
    ports,
    nets: [...new Set(names.values())],
    dots: junctions(
      segments,
      pins.map((p) => p.at),
    ),
    slanted: slantedWires(segments),
    faults: findFaults(segments, pinsPerNet),
    netAt: (point) => {
      const segment = segments.find((s) => touches(s, point));
      const root = find(key(segment?.from ?? point));
      return names.get(root);
    },
  };
}

const key = (p: Point) => `${p[0]},${p[1]}`;

function touches({ from, to }: Segment, [x, y]: Point): boolean {
  const within = (v: number, a: number, b: number) => v >= Math.min(a, b) && v <= Math.max(a, b);
  return from[0] === to[0]
    ? x === from[0] && within(y, from[1], to[1])
    : y === from[1] && within(x, from[0], to[0]);
}

/** Points that three or more lines leave: ends of runs count one, runs passing through two. */
function junctions(segments: Segment[], pins: Point[]): Point[] {
  const candidates = new Map<string, Point>();
  for (const p of [...segments.flatMap((s) => [s.from, s.to]), ...pins]) candidates.set(key(p), p);
  return [...candidates.values()].filter((p) => {
    const wires = segments.reduce(
      (n, s) => n + (!touches(s, p) ? 0 : key(s.from) === key(p) || key(s.to) === key(p) ? 1 : 2),
      0,
    );
    return wires + pins.filter((q) => key(q) === key(p)).length >= 3;
  });
}

const slantedWires = (segments: Segment[]): string[] =>
  segments
    .filter((s) => s.from[0] !== s.to[0] && s.from[1] !== s.to[1])
    .map((s) => `the wire from ${key(s.from)} to ${key(s.to)} is slanted`);

function findFaults(segments: Segment[], pinsPerNet: Map<string, number>): string[] {
  const loose = [...pinsPerNet]
    .filter(([, pins]) => pins < 2)
    .map(([net]) => `net ${net} joins fewer than two pins`);
  const missing = ['in', 'out']
    .filter((net) => !pinsPerNet.has(net))
    .map((net) => `nothing is drawn at net ${net}`);
  return [...slantedWires(segments), ...loose, ...missing];
}
