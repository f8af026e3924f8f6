import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { deviatingBy, type Rules } from '@/core/spread/rules';
import { standardDeviation } from '@/core/spread/deviations';

/** One value of the circuit that may be another than it should be. */
export interface Movable {
  part: string;
  /** Its place among the values of an analysis; of what moves together, all places. */
  parameters: readonly number[];
  /** How far an ordinary one is off, as one standard deviation of the logarithm of its value. */
  usual: number;
  /** Whether it is looked at as a culprit, and not only as one that blurs the others. */
  suspect: boolean;
}

/** How far parts are off where nothing is said, by kind. */
export const USUAL_TOLERANCES: Rules = {
  resistor: { tolerance: 0.01 },
  capacitor: { tolerance: 0.05 },
  inductor: { tolerance: 0.05 },
  potentiometer: { tolerance: 0.1 },
  'op-amp': { tolerance: 0.3 },
  ota: { tolerance: 0.1 },
  transconductor: { tolerance: 0.05 },
  coupling: { tolerance: 0.05 },
  transistor: { tolerance: 0.4 },
};

/** A part that was measured is still not exact. */
const LEAST_USUAL = 5e-4;
/** What a tolerance tells of a culprit: its bandwidth is a mistake of its own, and not a value. */
const NO_SUSPECTS = ['op-amp'];

/**
 * The values that may be off, and by how much ordinary ones are.
 *
 * @param rules by kind or by the id of a part; where nothing is said, the usual ones
 * @param fixed parts that are not of the board
 * @throws ReedError `range` for a rule that is about nothing in the circuit
 */
export function movables(
  analysis: AcAnalysis,
  rules: Rules,
  fixed: ReadonlySet<string> = new Set(),
): Movable[] {
  const kinds = new Map(analysis.system.circuit.parts.map((p) => [p.id, p.kind as string]));
  return deviatingBy(analysis, { ...USUAL_TOLERANCES, ...rules }, fixed).map((deviating) => ({
    part: deviating.part,
    parameters: [deviating.parameter],
    usual: Math.max(LEAST_USUAL, standardDeviation(deviating)),
    suspect: !NO_SUSPECTS.includes(kinds.get(deviating.part)!),
  }));
}

/**
 * What moves in several circuits of one board, in one order: of a part that a circuit has not nothing
 * moves there.
 */
export function alignedMovables(lists: readonly (readonly Movable[])[]): Movable[][] {
  const all = new Map<string, Movable>();
  for (const list of lists) for (const one of list) if (!all.has(one.part)) all.set(one.part, one);
  return lists.map((list) => {
    const own = new Map(list.map((one) => [one.part, one]));
    return [...all.values()].map((one) => own.get(one.part) ?? { ...one, parameters: [] });
  });
}
