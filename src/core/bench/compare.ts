import { deviceOf } from '@/core/circuit/devices';
import type { Circuit } from '@/core/circuit/schema';
import type { StockEntry } from '@/core/library/stock';
import type { MeasuredCurve } from '@/core/library/take-table';
import { levelsAt } from '@/core/response/levels-at';
import { isValued, valueOfPart, withFactors } from '@/core/mistakes/mistake';
import type { Sheet } from '@/core/sheet/schema';
import { findSuspects, type Findings } from '@/core/suspects/suspects';
import type { Suspect } from '@/core/suspects/rank';
import { boardCircuit, shownName, type SheetBoard, type TakenHow } from './board-circuit';

/** A take of a board held against what was predicted. */
export interface Comparison {
  frequenciesHz: Float64Array;
  /** What was predicted. */
  predictedDb: Float64Array;
  /** Take less prediction, the level of the source as it most likely was; of ohms, as they are. */
  differenceDb: Float64Array;
  findings: Findings;
  /** By suspect: what it makes of the difference. */
  explainedDb: Float64Array[];
  /** Of every net, the parts that meet there: what it is called by where it has no name of its own. */
  meeting: Record<string, string[]>;
  /** What parts are called in words, by their names in the circuit. */
  names: Record<string, string>;
  /** By suspect and part: the value that it should have and seems to have. */
  values: { id: string; should: number | null; seems: number | null }[][];
}

/** A take as it is held against a board. */
export type TakenCurve = MeasuredCurve & TakenHow;

/**
 * Hold a take against the board it is of.
 *
 * @param beside other takes of the board as it is now, that are weighed with it
 * @throws ReedError as `findSuspects`
 */
export function compareTake(
  sheet: Sheet,
  board: SheetBoard | undefined,
  take: TakenCurve,
  drawer: readonly StockEntry[] = [],
  beside: readonly TakenCurve[] = [],
): Comparison {
  const own = boardCircuit(sheet, board, drawer, take);
  const { circuit, probe, fixed } = own;
  const isLevelKnown = own.gainSdDb < Infinity;
  const findings = findSuspects({
    ...own,
    take,
    beside: beside.map((other) => ({ ...boardCircuit(sheet, board, drawer, other), take: other })),
  });
  const frequenciesHz = Float64Array.from(take.frequenciesHz);
  const levels = (of: Circuit) => levelsAt(of, probe, frequenciesHz);
  const exact = levels(circuit);
  const gainDb = isLevelKnown ? 0 : findings.gainDb;
  const difference = exact.map((db, k) => take.levelDb[k] - db - gainDb);
  const middle = mean(difference);
  return {
    frequenciesHz,
    predictedDb: exact,
    differenceDb: difference,
    findings,
    explainedDb: findings.ranking.map((suspect) => {
      const changed = levels(withSuspect(circuit, suspect)).map((db, k) => db - exact[k]);
      // Where no take tells a level from the source’s each suspect is drawn at that of the take.
      const shift = isLevelKnown ? 0 : middle - mean(changed);
      return changed.map((db) => db + shift);
    }),
    meeting: meetingIn(circuit, fixed),
    names: Object.fromEntries(circuit.parts.map(({ id }) => [id, shownName(sheet, id)])),
    values: findings.ranking.map(({ parts }) =>
      parts.map(({ id, factor }) => {
        const part = circuit.parts.find((p) => p.id === id);
        const should = part && isValued(part) ? valueOfPart(part) : null;
        return { id, should, seems: should === null ? null : should * factor };
      }),
    ),
  };
}

const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;

/** The circuit as a suspect has it. */
export function withSuspect(circuit: Circuit, { parts }: Pick<Suspect, 'parts'>): Circuit {
  return withFactors(circuit, Object.fromEntries(parts.map(({ id, factor }) => [id, factor])));
}

/** By net, the parts of the board that are joined to it. */
export function meetingIn(circuit: Circuit, fixed: ReadonlySet<string>): Record<string, string[]> {
  const meeting: Record<string, string[]> = {};
  for (const part of circuit.parts) {
    if (fixed.has(part.id)) continue;
    for (const net of new Set(Object.values(deviceOf(part.kind).terminals(part))))
      (meeting[net] ??= []).push(part.id);
  }
  return meeting;
}
