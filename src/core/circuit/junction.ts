import { THERMAL_VOLTS } from '@/core/constants';

/** Beyond this exponent the exponential goes on as its tangent, so that no trial voltage overflows. */
export const STEEPEST = 80;

/** exp(x), continued as a straight line beyond x = 80. */
export function boundedExp(x: number): number {
  return x <= STEEPEST ? Math.exp(x) : Math.exp(STEEPEST) * (1 + x - STEEPEST);
}

/** Derivative of `boundedExp`. */
export function boundedExpSlope(x: number): number {
  return x <= STEEPEST ? Math.exp(x) : Math.exp(STEEPEST);
}

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
export const FORWARD = 0.5;

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
