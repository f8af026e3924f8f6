import type { Part } from '@/core/circuit/schema';
import { namesInCircuit } from '@/core/sheet/path-circuit';
import { mutualInductance } from '@/core/speaker/coils/mutual';
import { selfInductance } from '@/core/speaker/coils/self';
import type { CrossoverDesign } from '../crossover-design';
import { boardOf, coilInSpace, type BoardPart } from './layout';

/** What two coils of a board share. */
export interface CoilPair {
  a: BoardPart;
  b: BoardPart;
  /** As air-cored windings share it; negative where one's current would push the other's the other way. */
  k: number;
}

/** Couplings below this are not worth an element. */
const FAINT = 1e-5;
/** Coils that lie in each other share no more than this is said to be. */
const MOST = 0.95;

const known = new Map<string, number>();
const MOST_KNOWN = 4000;

/**
 * What two coils share, by their windings, places and axes.
 *
 * @param loops fewer than usual where much is tried out
 */
export function couplingBetween(a: BoardPart, b: BoardPart, loops?: number): number {
  const [first, second] = [a, b].map(coilInSpace);
  const key = JSON.stringify([first, second, loops]);
  let k = known.get(key);
  if (k === undefined) {
    const m = mutualInductance(first, second, loops);
    k = m / Math.sqrt(selfInductance(first) * selfInductance(second));
    k = Number.isFinite(k) ? Math.max(-MOST, Math.min(MOST, k)) : MOST;
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(key, k);
  }
  return k;
}

/** Every pair of coils of a board. */
export function coilPairs(parts: readonly BoardPart[]): CoilPair[] {
  const coils = parts.filter((p) => p.coil);
  return coils.flatMap((a, i) =>
    coils.slice(i + 1).map((b) => ({ a, b, k: couplingBetween(a, b) })),
  );
}

/** The couplings of a crossover's board as parts of its circuit. */
export function couplingParts(
  design: CrossoverDesign,
  pairs: readonly CoilPair[] = coilPairs(boardOf(design).parts),
): Part[] {
  const nameOf = ({ stage, part, way }: BoardPart) =>
    namesInCircuit(design, way)(
      design.ways[way].stages.find((s) => s.id === stage)!,
      part,
    );
  return pairs
    .filter(({ k }) => Math.abs(k) > FAINT)
    .map(({ a, b, k }, i) => ({
      id: `coupling.${i + 1}`,
      kind: 'coupling',
      inductors: [nameOf(a), nameOf(b)],
      k,
    }));
}

/** A way of laying a coil in which it shares least with all others. */
export interface QuietTurn {
  lies: BoardPart['lies'];
  degrees: number;
  /** Sum of what it shares with the others then, and as it lies. */
  shares: number;
  shared: number;
}

/** Loops with which turns are tried out, and how they are searched. */
const ROUGH = 2;
const COARSE = 5;
const FINER = [4, 2, 1];

/**
 * How a coil is best turned where it is: flat, or on its edge by some angle. A small coil shares with
 * another what the field at its place has along its axis, so that two axes tell of all others; from
 * the best of those the turn is found on the windings themselves.
 */
export function quietestTurn(coil: BoardPart, parts: readonly BoardPart[]): QuietTurn {
  const others = parts.filter((p) => p.coil && p !== coil);
  const shares = (lies: BoardPart['lies'], degrees: number, loops?: number) =>
    others.map((o) => couplingBetween({ ...coil, lies, degrees }, o, loops));
  const total = (ks: readonly number[]) => ks.reduce((sum, k) => sum + Math.abs(k), 0);
  const [along, across] = [shares('edge', 0, ROUGH), shares('edge', 90, ROUGH)];
  const guessed = (degrees: number) => {
    const angle = (degrees * Math.PI) / 180;
    return total(along.map((k, i) => k * Math.cos(angle) + across[i] * Math.sin(angle)));
  };
  let degrees = 0;
  for (let d = COARSE; d < 180; d += COARSE) if (guessed(d) < guessed(degrees)) degrees = d;
  let rough = total(shares('edge', degrees, ROUGH));
  for (const step of FINER)
    for (const by of [-step, step]) {
      const turned = (degrees + by + 180) % 180;
      const there = total(shares('edge', turned, ROUGH));
      if (there < rough) [degrees, rough] = [turned, there];
    }
  const shared = total(shares(coil.lies, coil.degrees));
  const turns: QuietTurn[] = [
    { lies: coil.lies, degrees: coil.degrees, shares: shared, shared },
    { lies: 'flat', degrees: 0, shares: total(shares('flat', 0)), shared },
    { lies: 'edge', degrees, shares: total(shares('edge', degrees)), shared },
  ];
  return turns.reduce((a, b) => (b.shares < a.shares ? b : a));
}
