import { entryValue } from '@/core/circuit/compile';
import type { AcAnalysis } from '../ac/ac';
import { RealSolver } from '../linear/real-solver';

/** How one part value moves the slopes of the devices, through the operating point; by slot. */
export interface SlopeShift {
  parameter: number;
  slots: { row: number; column: number; resistive: number; reactive: number }[];
}

/**
 * The voltage by which the operating point is moved to each side when slopes are differenced: far
 * below the thermal voltage, so that the third derivative leaves about a part in ten million, and
 * far above rounding.
 */
const REACH_VOLTS = 1e-5;

/**
 * d(small-signal slopes) / d ln(value) for every part value that moves the operating point.
 *
 * At rest F(x, p) = 0, so dx/dp = -J^-1 dF/dp; the slopes change along that direction, which is
 * differenced once for each value and serves every frequency. Empty for linear circuits.
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
  for (const entry of system.entries) {
    if (entry.reactive) continue;
    const current = entryValue(entry, values) * x[entry.column];
    for (const [parameter, power] of entry.factors) pulls[parameter][entry.row] -= power * current;
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
    if (!(largest > 1e-15)) return;
    const by = REACH_VOLTS / largest;
    const above = slopesAt(move, by);
    const below = slopesAt(move, -by);
    const slots: SlopeShift['slots'] = [];
    for (let slot = 0; slot < rows.length; slot++) {
      const resistive = (above.g[slot] - below.g[slot]) / (2 * by);
      const reactive = (above.c[slot] - below.c[slot]) / (2 * by);
      if (resistive !== 0 || reactive !== 0)
        slots.push({ row: rows[slot], column: columns[slot], resistive, reactive });
    }
    shifts.push({ parameter, slots });
  });
  equations.evaluate(x);
  return shifts;
}
