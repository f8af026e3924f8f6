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

/** What two coils share, by their windings, places and axes. */
export function couplingBetween(a: BoardPart, b: BoardPart): number {
  const [first, second] = [a, b].map(coilInSpace);
  const key = JSON.stringify([first, second]);
  let k = known.get(key);
  if (k === undefined) {
    const m = mutualInductance(first, second);
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

const COARSE = 15;

/** How a coil is best turned where it is: flat, or on its edge by some angle. */
export function quietestTurn(coil: BoardPart, parts: readonly BoardPart[]): QuietTurn {
  const others = parts.filter((p) => p.coil && p !== coil);
  const sharedAs = (lies: BoardPart['lies'], degrees: number) =>
    others.reduce((sum, o) => sum + Math.abs(couplingBetween({ ...coil, lies, degrees }, o)), 0);
  let best = { lies: 'flat' as BoardPart['lies'], degrees: 0, shares: sharedAs('flat', 0) };
  const consider = (degrees: number) => {
    const turn = ((degrees % 180) + 180) % 180;
    const shares = sharedAs('edge', turn);
    if (shares < best.shares * 0.999) best = { lies: 'edge', degrees: turn, shares };
  };
  for (let degrees = 0; degrees < 180; degrees += COARSE) consider(degrees);
  if (best.lies === 'edge')
    for (const step of [5, 2, 1]) {
      const { degrees } = best;
      for (const by of [-2, -1, 1, 2]) consider(degrees + by * step);
    }
  return { ...best, shared: sharedAs(coil.lies, coil.degrees) };
}
