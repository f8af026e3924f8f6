import { FACINGS, quarterTurns, stepOf, type Facing } from '@/core/parts/geometry';
import type { Point } from '../drawing';
import type { Paper } from './paper';

/*
 * A wire’s way over the paper: the cheapest of straight runs and bends that touches nothing of
 * another net but to cross it (A*: P. E. Hart, N. J. Nilsson, B. Raphael, "A Formal Basis for the
 * Heuristic Determination of Minimum Cost Paths", IEEE Trans. Systems Science and Cybernetics 4,
 * 1968; states are a point and the direction it was reached in).
 */

const BEND = 2;
const CROSSING = 4;

export interface Route {
  points: Point[];
  cost: number;
}

/**
 * Grid distance of every point to the nearest of a net that a wire may end at; infinite on an
 * empty paper. Never more than a wire costs that has to go there.
 */
export function distancesTo(paper: Paper, net: number): Float32Array {
  const { width, height } = paper;
  const d = new Float32Array(width * height).fill(Infinity);
  for (let i = 0; i < d.length; i++) if (mayEndAt(paper, i, net)) d[i] = 0;
  // Two sweeps are exact for steps along the grid.
  for (let i = 0; i < d.length; i++) {
    if (i % width > 0) d[i] = Math.min(d[i], d[i - 1] + 1);
    if (i >= width) d[i] = Math.min(d[i], d[i - width] + 1);
  }
  for (let i = d.length - 1; i >= 0; i--) {
    if (i % width < width - 1) d[i] = Math.min(d[i], d[i + 1] + 1);
    if (i < d.length - width) d[i] = Math.min(d[i], d[i + width] + 1);
  }
  return d;
}

/** Whether a wire of a net may end at a point: the net is there, and no other. */
function mayEndAt({ right, down, corner, width }: Paper, i: number, net: number): boolean {
  const [a, b] = [i > 0 ? right[i - 1] : 0, i >= width ? down[i - width] : 0];
  const [c, d, e] = [corner[i], right[i], down[i]];
  if (a !== net && b !== net && c !== net && d !== net && e !== net) return false;
  const fits = (n: number) => n === 0 || n === net;
  return fits(a) && fits(b) && fits(c) && fits(d) && fits(e);
}

/**
 * A wire from a pin to its net.
 *
 * @param distances those of `distancesTo` for the net
 * @param most give up beyond this cost
 */
export function route(
  paper: Paper,
  from: Point,
  leaves: Facing,
  net: number,
  distances: Float32Array,
  most: number,
): Route | undefined {
  const { width, height, right, down, corner, body, room } = paper;
  const steps = FACINGS.map(stepOf);
  const start = paper.index(from);
  const size = width * height;
  const best = new Float32Array(size * 4).fill(Infinity);
  const came = new Int32Array(size * 4).fill(-1);
  const open = new Heap();
  const first = start * 4 + quarterTurns(leaves);
  best[first] = 0;
  open.push(first, distances[start]);
  while (open.size > 0) {
    const state = open.pop();
    const at = state >> 2;
    const facing = state & 3;
    if (at !== start && distances[at] === 0)
      return { points: pathTo(paper, came, state), cost: best[state] };
    // A wire that crosses another goes straight on.
    const crosses = at !== start && isOther(paper, at, net);
    for (let turn = 0; turn < 4; turn++) {
      if (turn !== facing && (at === start || crosses || (turn + 2) % 4 === facing)) continue;
      const [dx, dy] = steps[turn];
      const x = (at % width) + dx;
      const y = Math.floor(at / width) + dy;
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const to = at + dx + dy * width;
      const edge = dx === 1 ? right[at] : dx === -1 ? right[to] : dy === 1 ? down[at] : down[to];
      if (edge !== 0 && edge !== net) continue;
      if (body[to] || (corner[to] !== 0 && corner[to] !== net)) continue;
      const other = isOther(paper, to, net);
      if (other && !crossesStraight(paper, to, dx !== 0, net)) continue;
      const cost =
        best[state] + 1 + (turn === facing ? 0 : BEND) + (other ? CROSSING : 0) + room[to];
      const next = to * 4 + turn;
      const bound = cost + distances[to];
      if (cost >= best[next] || bound > most) continue;
      best[next] = cost;
      came[next] = state;
      open.push(next, bound);
    }
  }
  return undefined;
}

/** Whether another net has a wire through a point. */
function isOther({ right, down, width }: Paper, i: number, net: number): boolean {
  const differs = (n: number) => n !== 0 && n !== net;
  return (
    differs(right[i]) ||
    differs(down[i]) ||
    (i > 0 && differs(right[i - 1])) ||
    (i >= width && differs(down[i - width]))
  );
}

/** Whether what passes a point does so straight across the way of a wire. */
function crossesStraight(
  { right, down, width }: Paper,
  i: number,
  alongX: boolean,
  net: number,
): boolean {
  const [before, after] = alongX ? [down[i - width], down[i]] : [right[i - 1], right[i]];
  const [mine, mineToo] = alongX ? [right[i - 1], right[i]] : [down[i - width], down[i]];
  return before === after && before !== 0 && before !== net && mine === 0 && mineToo === 0;
}

/** Corners of the way that led to a state. */
function pathTo(paper: Paper, came: Int32Array, state: number): Point[] {
  const points: Point[] = [];
  for (let s = state; s >= 0; s = came[s]) points.push(paper.point(s >> 2));
  return cornersOf(points.reverse());
}

/** A polyline without points that lie on its runs, and without repeated ones. */
export function cornersOf(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const p of points) {
    const [a, b] = [kept[kept.length - 2], kept[kept.length - 1]];
    if (b && b[0] === p[0] && b[1] === p[1]) continue;
    const straight = a && ((a[0] === b[0] && b[0] === p[0]) || (a[1] === b[1] && b[1] === p[1]));
    if (straight) kept.pop();
    kept.push(p);
  }
  return kept;
}

/** States by their bounds, the least first. */
class Heap {
  private readonly states: number[] = [];
  private readonly keys: number[] = [];

  get size(): number {
    return this.states.length;
  }

  push(state: number, key: number): void {
    const { states, keys } = this;
    let i = states.length;
    states.push(state);
    keys.push(key);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (keys[up] <= key) break;
      states[i] = states[up];
      keys[i] = keys[up];
      i = up;
    }
    states[i] = state;
    keys[i] = key;
  }

  pop(): number {
    const { states, keys } = this;
    const top = states[0];
    const state = states.pop()!;
    const key = keys.pop()!;
    const n = states.length;
    if (n === 0) return top;
    let i = 0;
    for (;;) {
      let child = 2 * i + 1;
      if (child >= n) break;
      if (child + 1 < n && keys[child + 1] < keys[child]) child++;
      if (keys[child] >= key) break;
      states[i] = states[child];
      keys[i] = keys[child];
      i = child;
    }
    states[i] = state;
    keys[i] = key;
    return top;
  }
}
