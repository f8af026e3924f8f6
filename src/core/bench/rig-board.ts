import type { MeasuredCurve } from '@/core/library/take-table';
import { spaced } from '@/core/response/landmarks';
import { readFault } from '@/core/rig/fault';
import { measureBoard } from '@/core/rig/rig';
import type { Sheet } from '@/core/sheet/schema';
import type { Meter } from './meters';
import { boardCircuit } from './board-circuit';

export interface RigBoard {
  /** The same board for the same number. */
  seed: number;
  /** What is wrong with it, as it is typed; nothing for a board that is sound. */
  fault: string;
  noiseDb: number;
  /** What it is measured with, where the circuit feels that. */
  meter?: Meter;
}

const POINTS = 81;

/**
 * A take of a simulated board of a sheet, over the sheet’s picture: values drawn from the sheet’s
 * tolerances, at a level that nobody told.
 *
 * @throws ReedError `range` for a fault that cannot be, and as solving the sheet’s first way
 */
export function measureRigBoard(
  sheet: Sheet,
  { seed, fault, noiseDb, meter }: RigBoard,
): MeasuredCurve {
  const { circuit, probe, rules, fixed } = boardCircuit(sheet, undefined, [], meter);
  const { fromHz, toHz } = sheet.view;
  return measureBoard({
    circuit,
    probe,
    frequenciesHz: Array.from(spaced(fromHz, toHz, POINTS)),
    seed,
    rules,
    faults: fault.trim() === '' ? [] : [readFault(fault, circuit)],
    noiseDb,
    fixed,
  }).take;
}
