import { productOf } from '@/core/circuit/stamper';
import type { AcAnalysis } from '../ac/ac';
import { RealSolver } from '../linear/real-solver';

/** How one value moves the slopes of the devices, by what they are and where they rest; by slot. */
export interface SlopeShift {
  parameter: number;
  slots: { row: number; column: number; resistive: number; reactive: number }[];
}

/** The part of itself by which a constant of a device is moved to each side when it is differenced. */
const REACH = 1e-4;

/**
 * The voltage by which the operating point is moved to each side when slopes are differenced: far
 * below the thermal voltage, so that the third derivative leaves about a part in ten million, and
 * far above rounding.
 */
const REACH_VOLTS = 1e-5;

/**
 * d(small-signal slopes) / d ln(value) for every value that moves the operating point or stands in
 * the law of a device.
 *
 * At rest F(x, p) = 0, so dx/dp = -J^-1 dF/dp; the slopes change along that direction, which is
 * differenced once for each value and serves every frequency. What a constant of a device does to
 * its law at x is differenced too. Empty for linear circuits.
 */
export function slopeShifts(analysis: AcAnalysis): SlopeShift[] {
  const { linearised, system, values } = analysis;
  if (!linearised) return [];
  const { equations, x } = linearised;
  const { rows, columns } = equations.pattern;
  equations.evaluate(x);
  const solver = new RealSolver(equations.pattern);
  solver.factor(Float64Array.from(equations.conductances));
  const pulls = system.parameters.map(() => new Float64Array(equations.size));
  /** What constants do to the laws themselves, by parameter and slot. */
  const laws = new Map<number, { g: Float64Array; c: Float64Array }>();
  for (const entry of system.entries) {
    if (entry.reactive) continue;
    const current = productOf(entry, values) * x[entry.column];
    for (const [parameter, power] of entry.factors) pulls[parameter][entry.row] -= power * current;
  }
  for (const { row, sign, dc, waveform } of system.sources)
    if (dc !== undefined && !waveform) pulls[dc][row] += sign * values[dc];
  for (const { own, elements } of system.entangled) {
    if (elements.length === 0) continue;
    for (const parameter of own) {
      const g = new Float64Array(rows.length);
      const c = new Float64Array(rows.length);
      laws.set(parameter, { g, c });
      const sides = [1 - REACH, 1 + REACH].map((by) => values[parameter] * by) as [number, number];
      equations.eachDifference(x, parameter, sides, (at, slots, difference) => {
        at.forEach((row, r) => {
          if (row >= 0) pulls[parameter][row] -= difference.current[r] / (2 * REACH);
        });
        slots.forEach((slot, k) => {
          if (slot < 0) return;
          g[slot] += difference.conductance[k] / (2 * REACH);
          c[slot] += difference.capacitance[k] / (2 * REACH);
        });
      });
    }
  }
  const point = new Float64Array(equations.size);
  const slopesAt = (move: Float64Array, by: number) => {
    for (let i = 0; i < point.length; i++) point[i] = x[i] + by * move[i];
    equations.evaluate(point);
    return {
      g: Float64Array.from(equations.conductances),
      c: Float64Array.from(equations.capacitances),
    };
  };
  const shifts: SlopeShift[] = [];
  pulls.forEach((move, parameter) => {
    solver.solve(move, move);
    const largest = equations.largestInput(move);
    const moves = largest > 1e-15;
    const law = laws.get(parameter);
    if (!moves && !law) return;
    const by = REACH_VOLTS / largest;
    const above = moves ? slopesAt(move, by) : undefined;
    const below = moves ? slopesAt(move, -by) : undefined;
    const slots: SlopeShift['slots'] = [];
    for (let slot = 0; slot < rows.length; slot++) {
      const along = (kind: 'g' | 'c') =>
        above && below ? (above[kind][slot] - below[kind][slot]) / (2 * by) : 0;
      const resistive = along('g') + (law?.g[slot] ?? 0);
      const reactive = along('c') + (law?.c[slot] ?? 0);
      if (resistive !== 0 || reactive !== 0)
        slots.push({ row: rows[slot], column: columns[slot], resistive, reactive });
    }
    shifts.push({ parameter, slots });
  });
  equations.evaluate(x);
  return shifts;
}
