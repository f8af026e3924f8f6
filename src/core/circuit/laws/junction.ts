import { FORWARD, STEEPEST } from '../junction';
import type { Arithmetic } from './law';

/** `boundedExp(x) - 1` and its derivative, as a law is written. */
export function boundedExpLaw<V>(a: Arithmetic<V>, x: V): { excess: V; slope: V } {
  const within = a.min(x, a.number(STEEPEST));
  const excess = a.expm1(within);
  const slope = a.add(excess, a.number(1));
  return { excess: a.add(excess, a.mul(slope, a.sub(x, within))), slope };
}

/** Furthest that a junction moves in one pass of Newton's method in compiled steps, volts. */
export const MOST_MOVE = 0.1;

/** `depletion` as a law is written. */
export function depletionLaw<V>(
  a: Arithmetic<V>,
  { farads, volts, grading }: { farads: V; volts: number; grading: number },
  v: V,
): { charge: V; capacitance: V } {
  const edge = FORWARD * volts;
  const below = a.min(v, a.number(edge));
  const bracket = a.sub(a.number(1), a.mul(below, a.number(1 / volts)));
  const power = a.exp(a.mul(a.number(-grading), a.log(bracket)));
  const atOrBelow = a.mul(farads, power);
  const charge = a.mul(
    a.mul(farads, a.number(volts / (1 - grading))),
    a.sub(a.number(1), a.mul(bracket, power)),
  );
  // Above the edge the capacitance is the one at the edge and a straight line more.
  const over = a.sub(v, below);
  const rise = a.mul(a.mul(atOrBelow, a.number(grading / (volts * (1 - FORWARD)))), over);
  const half = a.number(0.5);
  return {
    charge: a.add(charge, a.mul(a.add(atOrBelow, a.mul(half, rise)), over)),
    capacitance: a.add(atOrBelow, rise),
  };
}
