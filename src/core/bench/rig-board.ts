import type { MeasuredCurve } from '@/core/library/take-table';
import { spaced } from '@/core/response/landmarks';
import { readFault } from '@/core/rig/fault';
import { buildBoard, measureBoard, type BoardRequest } from '@/core/rig/rig';
import { playThrough, USUAL_CONVERTERS } from '@/core/rig/sweep-rig';
import type { Recording } from '@/core/sweep/swept';
import type { Sheet } from '@/core/sheet/schema';
import type { Meter } from './meters';
import { boardCircuit, type TakenHow } from './board-circuit';
import { POINTS } from './sweep-plan';

/** A simulated board of a sheet. */
export interface RigBoard {
  /** The same board for the same number. */
  seed: number;
  /** What is wrong with it, as it is typed; nothing for a board that is sound. */
  fault: string;
  /** What it is measured with, where the circuit feels that. */
  meter?: Meter;
  /** What is measured of it, where that is not the level at its output. */
  of?: TakenHow['of'];
}

/**
 * A take of a simulated board of a sheet, point by point over the sheet’s picture: values drawn from the
 * sheet’s tolerances, at a level that nobody told.
 *
 * @throws ReedError `range` for a fault that cannot be, and as solving the sheet’s first way
 */
export function measureRigBoard(
  sheet: Sheet,
  { noiseDb, ...board }: RigBoard & { noiseDb: number },
): MeasuredCurve {
  const { fromHz, toHz } = sheet.view;
  return measureBoard({
    ...requestOf(sheet, board),
    frequenciesHz: Array.from(spaced(fromHz, toHz, POINTS)),
    noiseDb,
    // A bridge knows its ohms.
    ...(board.of?.is === 'impedance' ? { gainDb: 0 } : {}),
  }).take;
}

/** Samples that are played through a simulated board, or a wire in its place, as often as asked. */
export interface BoardPlay {
  sheet: Sheet;
  board: RigBoard;
  through: 'board' | 'wire';
  samples: Float64Array;
  times: number;
  /** How often something was played before: noise is never twice the same. */
  turn: number;
}

/**
 * What an ordinary sound card records.
 *
 * @throws ReedError as `measureRigBoard`
 */
export function playRigBoard(play: BoardPlay): Recording[] {
  const { sheet, board, through, samples, times, turn } = play;
  const seeds = Array.from({ length: times }, (_, n) => board.seed * TURNS + turn + n);
  if (through === 'wire') return playThrough(null, samples, USUAL_CONVERTERS, seeds);
  const request = requestOf(sheet, board);
  const { analysis } = buildBoard(request);
  return playThrough({ analysis, probe: request.probe }, samples, USUAL_CONVERTERS, seeds);
}

const TURNS = 1000;

function requestOf(
  sheet: Sheet,
  { seed, fault, meter, of }: RigBoard,
): BoardRequest & { probe: string } {
  const { circuit, probe, rules, fixed } = boardCircuit(sheet, undefined, [], {
    ...(meter ? { meter } : {}),
    ...(of ? { of } : {}),
  });
  const faults = fault.trim() === '' ? [] : [readFault(fault, circuit)];
  return { circuit, probe, seed, rules, faults, fixed };
}
