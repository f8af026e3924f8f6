import { compareTake, type Comparison } from '@/core/bench/compare';
import type { MeasuredCurve } from '@/core/library/take-table';
import { faultParts, type Fault } from '@/core/rig/fault';
import type { PracticeBoard } from './deal';
import { BLAMED_COST, COSTS, measure } from './measure';
import type { PracticeRecord } from './record';

/** Whether the parts that are blamed are those, and all of those, that are wrong. */
export function isRight(fault: Fault, blamed: readonly string[]): boolean {
  const wrong = faultParts(fault);
  return wrong.length === blamed.length && wrong.every((id) => blamed.includes(id));
}

/** What a board has cost so far. */
export const costOf = ({ asked, blamed, state }: PracticeRecord): number =>
  asked.reduce((sum, { is }) => sum + COSTS[is], 0) +
  BLAMED_COST * (blamed.length - (state === 'solved' ? 1 : 0));

/** How a board is found out: what a sweep of its output says, and what would settle what it leaves open. */
export interface Reasoning {
  take: MeasuredCurve;
  comparison: Comparison;
  /** What somebody who knows the way needs. */
  par: number;
}

/** The turn of a sweep that is nobody’s. */
const OWN_TURN = 999;

/**
 * The reasoning from one sweep of the output.
 *
 * @throws ReedError as `compareTake`
 */
export function reasonAbout(board: PracticeBoard): Reasoning {
  const found = measure(board, { is: 'sweep', net: board.sound.probe }, OWN_TURN);
  if (found.is !== 'sweep') throw new Error('A sweep gives a sweep.');
  const comparison = compareTake(board.sheet, undefined, found.curve);
  const { ranking, mistakes, next } = comparison.findings;
  const named = [...ranking.map((s) => s.parts.map((p) => p.id)), ...mistakes.map((m) => m.parts)];
  const isFirst =
    (ranking[0]?.alike.length === 0 && isRight(board.fault, named[0])) ||
    (mistakes.length > 0 && mistakes[0].chance > 0.5 && isRight(board.fault, mistakes[0].parts));
  const isNamed = named.some((parts) => isRight(board.fault, parts));
  const par = COSTS.sweep + (isFirst || !next ? 0 : COSTS[next.kind]) + (isNamed ? 0 : COSTS.part);
  return { take: found.curve, comparison, par };
}
