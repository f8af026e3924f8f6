import type { DevicePair } from './step-devices';

/** What a kernel of time steps is made for. */
export interface StepShape {
  slots: number;
  unknowns: number;
  pairs: readonly DevicePair[];
  /** Numbers that are given for each step, and unknowns that are written down after it. */
  inputs: number;
  outputs: number;
  /** Most steps in one call. */
  steps: number;
}

/** Where things stand in the memory of a kernel, in bytes; vectors by unknown or row are of doubles. */
export interface StepLayout {
  /** By slot: G + pace C, G, and C. */
  matrix: number;
  conductance: number;
  storage: number;
  /** Of each pair of devices: its constants, then 1 / bend of each drop, each a pair of lanes. */
  constants: readonly number[];
  /** Right-hand side that stays, by row. */
  rest: number;
  /** 2/h, a pair of lanes. */
  pace: number;
  /** Weights of the last three points in the parabola through them, newest first, pairs of lanes. */
  parabola: number;
  /** Pace times third difference to error, over the tolerance. */
  strictness: number;
  /** Charges by row: those at the present point, and at the two before it, newest first. */
  charges: number;
  earlierCharges: readonly number[];
  rates: number;
  /** Of nets: the largest they ever were, and of late. */
  swing: number;
  late: number;
  /** Where the parabola leads. */
  guess: number;
  /** Four points; `order` says which is which: the present one, those before it, and the next one's. */
  points: readonly number[];
  order: number;
  /** Steps that were not taken, and why the first of them was not; whole numbers. */
  left: number;
  refusal: number;
  /** Doubt of what is worked out when values change. */
  doubt: number;
  inputs: number;
  outputs: number;
  /** Where the kernel's own constants begin. */
  own: number;
}

/** Nets are taken two at a time. */
export const even = (n: number): number => n + (n % 2);

export function stepLayout(shape: StepShape): StepLayout {
  let next = 0;
  const take = (doubles: number): number => {
    const at = next;
    next += 16 * Math.ceil(doubles / 2);
    return at;
  };
  // A point has one place more, so that an odd number of nets fills its last pair.
  const point = even(shape.unknowns + 1);
  return {
    matrix: take(shape.slots),
    conductance: take(shape.slots),
    storage: take(shape.slots),
    constants: shape.pairs.map(([{ law }]) => take(2 * (law.constants.length + law.drops.length))),
    rest: take(shape.unknowns),
    pace: take(2),
    parabola: take(6),
    strictness: take(1),
    charges: take(shape.unknowns),
    earlierCharges: [take(shape.unknowns), take(shape.unknowns)],
    rates: take(shape.unknowns),
    swing: take(point),
    late: take(point),
    guess: take(point),
    points: [take(point), take(point), take(point), take(point)],
    order: take(2),
    left: take(1),
    refusal: take(1),
    doubt: take(1),
    inputs: take(shape.inputs * shape.steps),
    outputs: take(shape.outputs * shape.steps),
    own: next,
  };
}
