import { partKindOf } from '@/core/parts';
import { stepOf } from '@/core/parts/geometry';
import type { PartSymbol } from '@/core/parts/part-kind';
import {
  boundsOf,
  isPart,
  isPort,
  onPaper,
  pinsOf,
  type Drawing,
  type DrawnSymbol,
  type PartOnPaper,
  type Point,
} from '../drawing';
import { readNets, type DrawnNets } from '../nets';
import { leadsOf } from '../shapes';

/** Price of a point beside a port or a ground symbol’s middle: no body may stand there. */
export const BARS = 5;

/** Free grid units kept around a drawing, for what is still to come. */
const MARGIN = 18;

/**
 * Which grid points and lines of a drawing are taken, and by which net. Nets are numbers from 1;
 * 0 is none. Points are numbered row by row.
 */
export class Paper {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** Net of the wire from a point to the next on the right, and to the next below. */
  readonly right: Int16Array;
  readonly down: Int16Array;
  /** Net that bends, ends or has a pin at a point. */
  readonly corner: Int16Array;
  /** Points under a symbol. */
  readonly body: Uint8Array;
  /** Points that words, or lines still to come, will want: how much it costs to take one. */
  readonly room: Uint8Array;
  private readonly nets: DrawnNets;
  private readonly numbers = new Map<string, number>();

  constructor(drawing: Drawing) {
    const { left, top, right, bottom } = drawing.symbols.length
      ? boundsOf(drawing)
      : { left: 0, top: 0, right: 0, bottom: 0 };
    this.left = left - MARGIN;
    this.top = top - MARGIN;
    this.width = right - left + 2 * MARGIN + 1;
    this.height = bottom - top + 2 * MARGIN + 1;
    const size = this.width * this.height;
    this.right = new Int16Array(size);
    this.down = new Int16Array(size);
    this.corner = new Int16Array(size);
    this.body = new Uint8Array(size);
    this.room = new Uint8Array(size);
    this.nets = readNets(drawing);
    for (const wire of drawing.wires) this.wire(wire, this.netAt(wire[0]));
    for (const symbol of drawing.symbols) this.symbol(symbol, (at) => this.netAt(at));
  }

  index([x, y]: Point): number {
    return (y - this.top) * this.width + x - this.left;
  }

  point(index: number): Point {
    return [(index % this.width) + this.left, Math.floor(index / this.width) + this.top];
  }

  inside([x, y]: Point): boolean {
    return (
      x >= this.left && y >= this.top && x < this.left + this.width && y < this.top + this.height
    );
  }

  /** The number of the net at a point of the drawing; 0 where there is none. */
  netAt(at: Point): number {
    const name = this.nets.netAt(at);
    return name === undefined ? 0 : this.numberOf(name);
  }

  /** A number for a net that is not drawn yet. */
  freshNet(): number {
    return this.numberOf(`@${this.numbers.size}`);
  }

  private numberOf(name: string): number {
    let n = this.numbers.get(name);
    if (n === undefined) this.numbers.set(name, (n = this.numbers.size + 1));
    return n;
  }

  wire(points: readonly Point[], net: number): void {
    for (const point of points) this.corner[this.index(point)] = net;
    for (let i = 1; i < points.length; i++) {
      const [[x1, y1], [x2, y2]] = [points[i - 1], points[i]];
      const line = y1 === y2 ? this.right : this.down;
      const step = y1 === y2 ? 1 : this.width;
      const from = this.index([Math.min(x1, x2), Math.min(y1, y2)]);
      const count = Math.abs(x1 - x2) + Math.abs(y1 - y2);
      for (let k = 0; k < count; k++) line[from + k * step] = net;
    }
  }

  symbol(symbol: DrawnSymbol, netOf: (at: Point, terminal: string) => number): void {
    if (isPart(symbol)) {
      for (const at of bodyPoints(symbol)) if (this.inside(at)) this.body[this.index(at)] = 1;
      for (const at of wordPoints(symbol)) if (this.inside(at)) this.room[this.index(at)] = 3;
      for (const at of cornerPoints(symbol)) if (this.inside(at)) this.room[this.index(at)] = BARS;
    } else if (symbol.kind !== 'name') {
      const [x, y] = symbol.at;
      const beside: Point[] = [
        [x - 1, y],
        [x + 1, y],
        [x, y + 1],
      ];
      // A line may come down to a ground; a port is round.
      if (isPort(symbol)) beside.push([x, y - 1]);
      for (const at of beside) this.room[this.index(at)] = BARS;
    }
    for (const { terminal, at, leaves } of pinsOf(symbol)) {
      const index = this.index(at);
      this.body[index] = 0;
      this.corner[index] = netOf(at, terminal);
      // A pin that nothing leads to yet wants its way out kept free.
      const [dx, dy] = stepOf(leaves);
      const out = index + dx + dy * this.width;
      const joined =
        this.right[index] ||
        this.down[index] ||
        this.right[index - 1] ||
        this.down[index - this.width];
      if (!joined && this.inside([at[0] + dx, at[1] + dy])) this.room[out] = 3;
    }
  }

  /** The same paper, to try things on. */
  copy(): Paper {
    const other = Object.create(Paper.prototype) as Paper;
    return Object.assign(other, this, {
      right: this.right.slice(),
      down: this.down.slice(),
      corner: this.corner.slice(),
      body: this.body.slice(),
      room: this.room.slice(),
      numbers: new Map(this.numbers),
    });
  }
}

const rounded = (points: readonly Point[]) => {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return {
    left: Math.ceil(Math.min(...xs)),
    right: Math.floor(Math.max(...xs)),
    top: Math.ceil(Math.min(...ys)),
    bottom: Math.floor(Math.max(...ys)),
  };
};

function pointsIn({ left, right, top, bottom }: ReturnType<typeof rounded>): Point[] {
  const points: Point[] = [];
  for (let y = top; y <= bottom; y++) for (let x = left; x <= right; x++) points.push([x, y]);
  return points;
}

const symbolOf = (part: PartOnPaper): PartSymbol => partKindOf(part.kind).symbol;

/** Grid points under a part, the lines that lead to its pins included; pins too. */
export function bodyPoints(part: PartOnPaper): Point[] {
  const its = symbolOf(part);
  return [
    ...pointsIn(rounded(its.body.map((p) => onPaper(part, p, its)))),
    ...leadsOf(part).flatMap((ends) => pointsIn(rounded(ends))),
  ];
}

/** Points beside the pins of a body that reaches over them: a triangle's corners, the ends of a bar. */
function cornerPoints(part: PartOnPaper): Point[] {
  const its = symbolOf(part);
  const points: Point[] =
    its.words === 'triangle'
      ? [
          [0, -1],
          [0, 2 * its.axis + 1],
        ]
      : its.pins.length === 1
        ? [
            [-1, 0],
            [1, 0],
          ]
        : [];
  return points.map((p) => onPaper(part, p, its));
}

/** Grid points that a part's name and value will stand on: above and below it, or to its right. */
export function wordPoints(part: PartOnPaper): Point[] {
  const its = symbolOf(part);
  const { left, right, top, bottom } = rounded(its.body.map((p) => onPaper(part, p, its)));
  const { toward = 'right' } = part;
  if (its.words === 'along' && (toward === 'right' || toward === 'left'))
    return [
      ...pointsIn({ left, right, top: top - 1, bottom: top - 1 }),
      ...pointsIn({ left, right, top: bottom + 1, bottom: bottom + 1 }),
    ];
  if (its.words === 'triangle')
    return pointsIn({ left: left + 2, right, top: bottom, bottom: bottom + 1 });
  return pointsIn({ left: right + 1, right: right + 3, top: top + 1, bottom: bottom - 1 });
}
