import type { SlotMatrix } from '../linear/matrix';
import type { DevicePair } from './step-devices';
import type { StepOrder } from './step-order';

/** The circuit that steps are compiled for. */
export interface SteppedCircuit {
  pattern: SlotMatrix;
  /** 1 for each slot that parts write a conductance to, devices aside, and a capacitance. */
  resistive: Uint8Array;
  reactive: Uint8Array;
  nets: number;
  pairs: readonly DevicePair[];
  order: StepOrder;
  /** Rows with a right-hand side that stays. */
  restRows: ReadonlySet<number>;
  /** What each number given for a step is added to. */
  inputs: readonly { row: number; sign: number }[];
  /** Unknowns written down after each step. */
  outputs: readonly number[];
  /** Parts of a net's size: what counts at least, how fast it is forgotten, volts that always count. */
  size: { least: number; forgetting: number; volts: number };
  exactness: Exactness;
}

/** How exactly a step is solved. */
export interface Exactness {
  /** Newton's method ends when no drop moved further than this part of its law's bend: the next move would be its square. */
  move: number;
  /** What may be left of an equation, as a part of its terms. */
  rest: number;
  /** Whether the error of each step is judged, and the digits that its pivots lose. */
  judged: boolean;
  /** Whether the capacitances of devices are held at what they are where the steps are compiled. */
  held: boolean;
}

/**
 * For figures, and for ears: a millionth of the thermal voltage is what then may be wrong, and junctions
 * of some picofarads, which sound hardly meets, cost nothing.
 */
export const EXACT: Exactness = { move: 1e-6, rest: 1e-11, judged: true, held: false };
export const AUDIBLE: Exactness = { move: 1e-3, rest: 1e-8, judged: false, held: true };

/** Why a step was not taken. */
export enum Refusal {
  unsettled,
  /** Its pivots lost digits. */
  pivots,
  /** It does not fulfil its equations. */
  unfulfilled,
  /** It was found, and errs too much. */
  error,
}
