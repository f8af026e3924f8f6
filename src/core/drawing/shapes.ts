import { partKindOf } from '@/core/parts';
import {
  isName,
  isPart,
  onPaper,
  type Drawing,
  type DrawnSymbol,
  type PartOnPaper,
  type Point,
} from './drawing';

/*
 * What a drawing covers, for placing words beside it. Lengths are in grid units; `shapesOf` gives
 * them in pixels at a scale of so many pixels a unit.
 */

export const GROUND = { half: 0.7, height: 0.6 } as const;
export const PORT_RADIUS = 0.18;

/** A convex outline, clockwise or not, with the box around it. */
export interface Shape {
  points: readonly (readonly [x: number, y: number])[];
  box: Box;
}

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export function shape(points: Shape['points']): Shape {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return {
    points,
    box: {
      left: Math.min(...xs),
      top: Math.min(...ys),
      right: Math.max(...xs),
      bottom: Math.max(...ys),
    },
  };
}

export const boxShape = ({ left, top, right, bottom }: Box): Shape => ({
  points: [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ],
  box: { left, top, right, bottom },
});

/** Whether the insides of two convex outlines meet (separating axes). */
export function overlap(a: Shape, b: Shape): boolean {
  if (
    a.box.right <= b.box.left ||
    b.box.right <= a.box.left ||
    a.box.bottom <= b.box.top ||
    b.box.bottom <= a.box.top
  )
    return false;
  return !separated(a, b) && !separated(b, a);
}

/** Whether the normal of one of the first outline's sides parts the two. */
function separated({ points }: Shape, other: Shape): boolean {
  for (let i = 0; i < points.length; i++) {
    const [x1, y1] = points[i];
    const [x2, y2] = points[(i + 1) % points.length];
    const [nx, ny] = [y2 - y1, x1 - x2];
    const along = (p: readonly [number, number]) => p[0] * nx + p[1] * ny;
    const [own, its] = [points.map(along), other.points.map(along)];
    if (Math.max(...own) <= Math.min(...its) + 1e-9 || Math.max(...its) <= Math.min(...own) + 1e-9)
      return true;
  }
  return false;
}

/** The bodies of everything that has one: a net's name is only letters. */
export const bodiesOf = ({ symbols }: Drawing, scale: number): Shape[] =>
  symbols.filter((s) => !isName(s)).map((s) => bodyOf(s, scale));

/** Body of a symbol, without the lines that lead to it; pixels. */
export function bodyOf(symbol: DrawnSymbol, scale: number): Shape {
  const [x, y] = symbol.at;
  const scaled = (points: readonly Point[]) =>
    shape(points.map(([px, py]) => [px * scale, py * scale]));
  if (isPart(symbol)) {
    const its = partKindOf(symbol.kind).symbol;
    return scaled(its.body.map((point) => onPaper(symbol, point, its)));
  }
  if (symbol.kind === 'ground')
    return scaled([
      [x - GROUND.half, y],
      [x + GROUND.half, y],
      [x + 0.2, y + GROUND.height],
      [x - 0.2, y + GROUND.height],
    ]);
  const r = PORT_RADIUS;
  return scaled([
    [x - r, y - r],
    [x + r, y - r],
    [x + r, y + r],
    [x - r, y + r],
  ]);
}

/** Lines that lead from a part's pins to its body, in grid units. */
export function leadsOf(symbol: PartOnPaper): [Point, Point][] {
  const its = partKindOf(symbol.kind).symbol;
  const drawn = its.pins.flatMap((p): [Point, Point][] =>
    p.optional && symbol.with?.includes(p.name) ? [[p.at, p.optional]] : [],
  );
  return [...its.leads, ...drawn].map(([a, b]) => [
    onPaper(symbol, a, its),
    onPaper(symbol, b, its),
  ]);
}

/** Half the width that a line is given, so that words keep off it; pixels. */
const LINE = 1.5;

/** Wires and the lines that lead from pins to bodies; pixels. */
export function linesOf(drawing: Drawing, scale: number): Shape[] {
  const lines: Shape[] = [];
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    lines.push(
      boxShape({
        left: Math.min(x1, x2) * scale - LINE,
        top: Math.min(y1, y2) * scale - LINE,
        right: Math.max(x1, x2) * scale + LINE,
        bottom: Math.max(y1, y2) * scale + LINE,
      }),
    );
  for (const wire of drawing.wires)
    for (let i = 1; i < wire.length; i++) line(...wire[i - 1], ...wire[i]);
  for (const symbol of drawing.symbols)
    if (isPart(symbol)) for (const [a, b] of leadsOf(symbol)) line(...a, ...b);
  return lines;
}
