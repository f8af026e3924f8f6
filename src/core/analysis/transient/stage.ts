import { THERMAL_VOLTS } from '@/core/constants';
import type { LargeSignalEquations } from '../large-signal/equations';
import { SingularPlan } from '../linear/plan';
import { RealSolver } from '../linear/real-solver';

const { abs } = Math;

/**
 * An iteration ends when what is left of the error is below this. Newton's method squares the error
 * at each pass: for a junction, F''/F' is at most 1/VT, and a last move of d volts at its terminals
 * leaves d^2/(2 VT), that is, every unknown's own last move times d/(2 VT) (C. T. Kelley, "Iterative
 * Methods for Linear and Nonlinear Equations", section 5.1). SAFETY covers what stands between.
 */
const SAFETY = 4;
const RELATIVE = 1e-12;
const ABSOLUTE_VOLTS = 1e-13;
const ABSOLUTE_AMPS = 1e-18;
const MOST_ITERATIONS = 40;
/** Paces within so many powers of two share an order of pivots. */
const PACES = 4;

/**
 * One implicit stage of a step: with charges Q(x) and static currents S(x) it solves
 * pace (Q(x) - past) + S(x) = b, where `past` gathers the charge at the step's beginning and what the
 * earlier stages have brought. Nothing is allocated after construction; linear circuits are factored
 * once for each pace.
 */
export class StageSolver {
  /** What moved most in an iteration that did not settle. */
  culprit = '';
  /** Charges at the last solution. */
  readonly charges: Float64Array;
  /** By the order of magnitude of the pace: pivots that serve one may ruin another. */
  private readonly solvers = new Map<number, RealSolver>();
  private solver: RealSolver;
  private readonly jacobian: Float64Array;
  private readonly residual: Float64Array;
  private readonly before: Float64Array;
  private readonly slack: Float64Array;
  private factoredFor = 0;

  constructor(private readonly equations: LargeSignalEquations) {
    const n = equations.size;
    this.solver = new RealSolver(equations.pattern);
    this.charges = new Float64Array(n);
    this.jacobian = new Float64Array(equations.pattern.rows.length);
    this.residual = new Float64Array(n);
    this.before = new Float64Array(n);
    this.slack = Float64Array.from(equations.system.unknowns, (u) =>
      u.kind === 'net' ? ABSOLUTE_VOLTS : ABSOLUTE_AMPS,
    );
  }

  /** Charges at a point that is known. */
  chargesAt(x: Float64Array): Float64Array {
    this.equations.evaluate(x);
    return this.equations.charges;
  }

  /**
   * Iterate from `x`, in place; false when it does not settle, and `x` is then worth nothing. To the
   * last digits, though the error of a step would not need it: compiled steps must agree with these.
   */
  solve(x: Float64Array, pace: number, past: Float64Array, rhs: Float64Array): boolean {
    const { equations, residual, before, slack } = this;
    if (equations.linear) return this.solveLinear(x, pace, past, rhs);
    const { statics, charges } = equations;
    before.set(x);
    for (let pass = 0; pass < MOST_ITERATIONS; pass++) {
      const held = equations.evaluate(x, before);
      for (let i = 0; i < residual.length; i++)
        residual[i] = rhs[i] - statics[i] - pace * (charges[i] - past[i]);
      if (!this.factor(pace)) return false;
      for (let i = 0; i < x.length; i++) before[i] = x[i];
      this.solver.solve(residual, residual);
      let settled = held === undefined;
      const shrink = Math.min(1, (SAFETY * equations.largestInput(residual)) / (2 * THERMAL_VOLTS));
      for (let i = 0; i < residual.length; i++) {
        const move = residual[i];
        x[i] += move;
        if (!(abs(move) * shrink <= RELATIVE * abs(x[i]) + slack[i])) {
          settled = false;
          this.culprit = equations.system.unknowns[i].label;
        }
      }
      if (held) this.culprit = `part ${held}`;
      if (settled) {
        this.noteCharges();
        return true;
      }
    }
    this.solver.forget();
    return false;
  }

  /** Without devices the solution is that of one system: (G + pace C) x = b + pace past. */
  private solveLinear(
    x: Float64Array,
    pace: number,
    past: Float64Array,
    rhs: Float64Array,
  ): boolean {
    const { equations, residual, charges } = this;
    if (this.factoredFor !== pace && !this.factor(pace)) return false;
    for (let i = 0; i < residual.length; i++) residual[i] = rhs[i] + pace * past[i];
    this.solver.solve(residual, x);
    equations.linearCharges(x, charges);
    return Number.isFinite(x[0]);
  }

  private solverFor(pace: number): RealSolver {
    const key = Math.round(Math.log2(pace) / PACES);
    let solver = this.solvers.get(key);
    if (!solver) this.solvers.set(key, (solver = new RealSolver(this.equations.pattern)));
    return solver;
  }

  private factor(pace: number): boolean {
    const { equations, jacobian } = this;
    this.solver = this.solverFor(pace);
    const { conductances, capacitances } = equations;
    for (let slot = 0; slot < jacobian.length; slot++)
      jacobian[slot] = conductances[slot] + pace * capacitances[slot];
    try {
      this.solver.factor(jacobian);
    } catch (error) {
      if (!(error instanceof SingularPlan)) throw error;
      this.culprit = equations.system.unknowns[error.unknown]?.label ?? '';
      this.factoredFor = 0;
      return false;
    }
    this.factoredFor = pace;
    return true;
  }

  /** The charges at the new point: those of the last evaluation, moved along their slopes. */
  private noteCharges(): void {
    const { equations, charges, residual } = this;
    const { rows, columns } = equations.pattern;
    charges.set(equations.charges);
    for (let slot = 0; slot < rows.length; slot++) {
      const capacitance = equations.capacitances[slot];
      if (capacitance !== 0) charges[rows[slot]] += capacitance * residual[columns[slot]];
    }
  }

  /**
   * What charges that are off by `wrong` do to the unknowns: pace wrong through the last factors.
   * Fast modes, which a step damps, do not count as errors then (L. F. Shampine's filter).
   */
  unknownsOf(wrong: Float64Array, pace: number, x: Float64Array): void {
    for (let i = 0; i < x.length; i++) x[i] = pace * wrong[i];
    this.solver.solve(x, x);
  }
}
