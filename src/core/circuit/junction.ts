import { THERMAL_VOLTS } from '@/core/constants';
import type { Arithmetic } from './law';

/** Beyond this exponent the exponential goes on as its tangent, so that no trial voltage overflows. */
const STEEPEST = 80;

/** exp(x), continued as a straight line beyond x = 80. */
export function boundedExp(x: number): number {
  return x <= STEEPEST ? Math.exp(x) : Math.exp(STEEPEST) * (1 + x - STEEPEST);
}

/** Derivative of `boundedExp`. */
export function boundedExpSlope(x: number): number {
  return x <= STEEPEST ? Math.exp(x) : Math.exp(STEEPEST);
}

/** `boundedExp(x) - 1` and its derivative, as a law is written. */
export function boundedExpLaw<V>(a: Arithmetic<V>, x: V): { excess: V; slope: V } {
  const within = a.min(x, a.number(STEEPEST));
  const excess = a.expm1(within);
  const slope = a.add(excess, a.number(1));
  return { excess: a.add(excess, a.mul(slope, a.sub(x, within))), slope };
}

/** Furthest that a junction moves in one pass of Newton's method in compiled steps, volts. */
export const MOST_MOVE = 0.1;

/** Voltage beyond which a junction's Newton steps are shortened (its curve's sharpest bend). */
export function criticalVolts(saturationAmps: number, emission: number): number {
  const vt = emission * THERMAL_VOLTS;
  return vt * Math.log(vt / (Math.SQRT2 * saturationAmps));
}

/**
 * Shorten a Newton step across a junction to a logarithmic one where the exponential would run away
 * (W. J. McCalla, "Fundamentals of Computer-Aided Circuit Simulation", 1988, chapter 5: junction
 * voltage limiting).
 */
export function limitJunction(v: number, previous: number, vt: number, critical: number): number {
  if (v <= critical || Math.abs(v - previous) <= 2 * vt) return v;
  if (previous > 0) {
    const argument = 1 + (v - previous) / vt;
    return argument > 0 ? previous + vt * Math.log(argument) : critical;
  }
  return vt * Math.log(v / vt);
}

/** How a depletion charge follows its voltage. */
export interface Depletion {
  /** Capacitance at zero bias, farads. */
  farads: number;
  /** Built-in voltage, volts. */
  volts: number;
  /** Grading: 0.5 abrupt, 0.33 graded. */
  grading: number;
}

/** Above this part of the built-in voltage the capacitance goes on as a straight line. */
const FORWARD = 0.5;

/** Charge and capacitance of a depletion layer at voltage v. */
export function depletion(
  { farads, volts, grading }: Depletion,
  v: number,
): [charge: number, capacitance: number] {
  if (farads === 0) return [0, 0];
  const edge = FORWARD * volts;
  if (v < edge) {
    const bracket = 1 - v / volts;
    const capacitance = farads * bracket ** -grading;
    return [(farads * volts * (1 - bracket ** (1 - grading))) / (1 - grading), capacitance];
  }
  const atEdge = farads * (1 - FORWARD) ** -grading;
  const slope = (atEdge * grading) / (volts * (1 - FORWARD));
  const charge = (farads * volts * (1 - (1 - FORWARD) ** (1 - grading))) / (1 - grading);
  const over = v - edge;
  return [charge + atEdge * over + (slope * over * over) / 2, atEdge + slope * over];
}

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
