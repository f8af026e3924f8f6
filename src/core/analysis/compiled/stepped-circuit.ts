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
}

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
