import { THERMAL_VOLTS } from '@/core/constants';
import type { LargeSignalEquations } from '../large-signal/equations';
import { SingularPlan } from '../linear/plan';
import { RealSolver } from '../linear/real-solver';

export type StepRule = 'euler' | 'trapezoidal';

/**
 * An iteration ends when what is left of the error is below this. Newton's method squares the error
 * at each pass: for a junction, F''/F' is at most 1/VT, and a last move of d volts at its terminals
 * leaves d^2/(2 VT), that is, every unknown's own last move times d/(2 VT) (C. T. Kelley, "Iterative
 * Methods for Linear and Nonlinear Equations", section 5.1). SAFETY covers what stands between.
 */
const SAFETY = 4;
const RELATIVE = 1e-6;
const ABSOLUTE_VOLTS = 1e-7;
const ABSOLUTE_AMPS = 1e-12;
const MOST_ITERATIONS = 40;

/**
 * Takes single time steps. With charges Q(x) and static currents S(x) the equations read
 * dQ/dt + S(x) = b(t); a step solves  (Q1 - Q0)/h + S1 = b1  (backward Euler) or, keeping the rate
 * of the last point,  2 (Q1 - Q0)/h - Q0' + S1 = b1  (trapezoidal).
 *
 * Nothing is allocated after construction. Linear circuits are factored once for each step size.
 */
export class Stepper {
  readonly x: Float64Array;
  /** What moved most in an iteration that did not settle. */
  culprit = '';
  private readonly solver: RealSolver;
  private readonly charges: Float64Array;
  private readonly rates: Float64Array;
  private readonly jacobian: Float64Array;
  private readonly residual: Float64Array;
  private readonly before: Float64Array;
  private readonly kept: { x: Float64Array; charges: Float64Array; rates: Float64Array };
  private factoredFor = 0;
  // Past points for the error estimate, newest first, and the steps between them.
  private readonly past: Float64Array[];
  private readonly gaps = new Float64Array(3);
  private known = 0;
  private readonly swing: Float64Array;
  private lastStep = 0;
  private readonly slack: Float64Array;

  constructor(
    private readonly equations: LargeSignalEquations,
    start: Float64Array,
  ) {
    const n = equations.size;
    this.x = Float64Array.from(start);
    this.solver = new RealSolver(equations.pattern);
    equations.evaluate(this.x);
    this.charges = Float64Array.from(equations.charges);
    this.rates = new Float64Array(n);
    this.jacobian = new Float64Array(equations.pattern.rows.length);
    this.residual = new Float64Array(n);
    this.before = new Float64Array(n);
    this.kept = {
      x: new Float64Array(n),
      charges: new Float64Array(n),
      rates: new Float64Array(n),
    };
    this.past = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
    this.swing = this.x.map((v) => Math.abs(v));
    this.slack = Float64Array.from(equations.system.unknowns, (u) =>
      u.kind === 'net' ? ABSOLUTE_VOLTS : ABSOLUTE_AMPS,
    );
  }

  /** Step by `h` to a time with right-hand side `rhs`; false (and nothing changed) when it does not settle. */
  step(h: number, rhs: Float64Array, rule: StepRule): boolean {
    const { equations, x, charges, rates, jacobian, residual, before, solver } = this;
    const { statics, charges: newCharges, conductances, capacitances } = equations;
    const perStep = (rule === 'euler' ? 1 : 2) / h;
    const keepRate = rule === 'euler' ? 0 : 1;
    copy(x, before);
    if (rule === 'euler') this.known = 0; // a jump: the past says nothing of what comes
    if (!equations.linear && this.known > 1) this.predict(h);
    copy(before, this.kept.x);
    for (let pass = 0; pass < MOST_ITERATIONS; pass++) {
      const held = equations.evaluate(x, this.kept.x);
      for (let i = 0; i < residual.length; i++) {
        residual[i] =
          rhs[i] - statics[i] - perStep * (newCharges[i] - charges[i]) + keepRate * rates[i];
      }
      if (!equations.linear || this.factoredFor !== perStep) {
        for (let slot = 0; slot < jacobian.length; slot++)
          jacobian[slot] = conductances[slot] + perStep * capacitances[slot];
        try {
          solver.factor(jacobian);
        } catch (error) {
          if (!(error instanceof SingularPlan)) throw error;
          this.culprit = equations.system.unknowns[error.unknown]?.label ?? '';
          x.set(before);
          return false;
        }
        this.factoredFor = perStep;
      }
      copy(x, this.kept.x);
      solver.solve(residual, residual);
      let settled = held === undefined;
      const shrink = Math.min(1, (SAFETY * equations.largestInput(residual)) / (2 * THERMAL_VOLTS));
      for (let i = 0; i < residual.length; i++) {
        const move = residual[i];
        x[i] += move;
        if (!(Math.abs(move) * shrink <= RELATIVE * Math.abs(x[i]) + this.slack[i])) {
          settled = false;
          this.culprit = equations.system.unknowns[i].label;
        }
      }
      if (held) this.culprit = `part ${held}`;
      if (settled || (equations.linear && Number.isFinite(x[0]))) {
        this.accept(h, perStep, keepRate, before);
        return true;
      }
    }
    x.set(before);
    return false;
  }

  /** Begin on the parabola through the last three points: often one iteration is then enough. */
  private predict(h: number): void {
    const { x, past, lastStep, gaps } = this;
    const gap = gaps[0];
    const span = lastStep + gap;
    for (let i = 0; i < x.length; i++) {
      const first = (x[i] - past[0][i]) / lastStep;
      const second = (first - (past[0][i] - past[1][i]) / gap) / span;
      x[i] += h * first + h * (h + lastStep) * second;
    }
  }

  private accept(h: number, perStep: number, keepRate: number, before: Float64Array): void {
    const { equations, charges, rates, residual } = this;
    // The charges at the new point: those of the last evaluation, moved along their slopes.
    const { rows, columns } = equations.pattern;
    const moved = equations.charges;
    for (let slot = 0; slot < rows.length; slot++) {
      const capacitance = equations.capacitances[slot];
      if (capacitance !== 0) moved[rows[slot]] += capacitance * residual[columns[slot]];
    }
    for (let i = 0; i < rates.length; i++) {
      rates[i] = perStep * (moved[i] - charges[i]) - keepRate * rates[i];
      charges[i] = moved[i];
    }
    this.push(before, h);
  }

  /** Remember the point a step left, for the predictor. */
  private push(point: Float64Array, h: number): void {
    const { past } = this;
    const oldest = past[2];
    past[2] = past[1];
    past[1] = past[0];
    past[0] = oldest;
    copy(point, oldest);
    this.gaps[2] = this.gaps[1];
    this.gaps[1] = this.gaps[0];
    this.gaps[0] = this.lastStep;
    this.lastStep = h;
    this.known = Math.min(3, this.known + 1);
    const { x, swing } = this;
    for (let i = 0; i < x.length; i++) {
      const size = Math.abs(x[i]);
      if (size > swing[i]) swing[i] = size;
    }
  }

  private readonly saved = {
    past: [] as Float64Array[],
    gaps: new Float64Array(3),
    known: 0,
    lastStep: 0,
    x: new Float64Array(0),
    charges: new Float64Array(0),
    rates: new Float64Array(0),
  };

  /** Remember everything, so that the next step can be taken back. */
  keep(): void {
    const s = this.saved;
    if (s.past.length === 0) {
      s.past = this.past.map((p) => Float64Array.from(p));
      s.x = Float64Array.from(this.x);
      s.charges = Float64Array.from(this.charges);
      s.rates = Float64Array.from(this.rates);
    }
    this.past.forEach((p, k) => s.past[k].set(p));
    s.gaps.set(this.gaps);
    s.known = this.known;
    s.lastStep = this.lastStep;
    s.x.set(this.x);
    s.charges.set(this.charges);
    s.rates.set(this.rates);
  }

  goBack(): void {
    const s = this.saved;
    this.past.forEach((p, k) => p.set(s.past[k]));
    this.gaps.set(s.gaps);
    this.known = s.known;
    this.lastStep = s.lastStep;
    this.x.set(s.x);
    this.charges.set(s.charges);
    this.rates.set(s.rates);
  }

  /** Past points belong to another course after a jump. */
  forget(): void {
    this.known = 0;
  }

  /**
   * Estimated local error of the last step in units of the tolerance: the distance of the new point
   * from the parabola through the three before it, of which the trapezoidal rule's own error is
   * about a thirteenth. 0 while too few points are known.
   */
  errorEstimate(tolerance: number): number {
    if (this.known < 3) return 0.2;
    const [p0, p1, p2] = this.past;
    const [g0, g1] = this.gaps;
    const h = this.lastStep;
    let worst = 0;
    for (let i = 0; i < this.x.length; i++) {
      if (this.equations.netSlots[i] < 0) continue;
      const first = (p0[i] - p1[i]) / g0;
      const second = (first - (p1[i] - p2[i]) / g1) / (g0 + g1);
      const predicted = p0[i] + h * first + h * (h + g0) * second;
      const error = Math.abs(this.x[i] - predicted) / 13 / (tolerance * this.swing[i] + 1e-7);
      if (error > worst) worst = error;
    }
    return worst;
  }
}

/** A plain loop: on the few numbers of a circuit it beats the built-in copy several times over. */
function copy(from: Float64Array, to: Float64Array): void {
  for (let i = 0; i < from.length; i++) to[i] = from[i];
}
