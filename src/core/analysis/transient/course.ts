import { constantOf } from '@/core/circuit/stamper';
import type { LargeSignalEquations } from '../large-signal/equations';
import { Pace } from './advance';
import { PAYS_FROM, QuickStepper } from './quick-stepper';
import { Stepper, type RightHandSide } from './stepper';

/** Errors of a step as parts of each voltage's swing: of the method of order 4, and of the cheap rule. */
const TOLERANCE = 1e-6;
const TRAPEZOIDAL = 3e-5;

/** A circuit with bent characteristics, led through time by a source whose volts are given step by step. */
export class Course {
  /** Volts of the net that is looked at. */
  out: number;
  private readonly stepper: Stepper;
  private readonly pace: Pace;
  private readonly quick: QuickStepper | undefined;
  /** The line that the source is led along. */
  private line = { from: 0, to: 1, before: 0, after: 0 };
  private readonly rhs: Float64Array;
  private readonly rest: Float64Array;
  private readonly rows: { row: number; sign: number }[];
  private volts = 0;
  private now = 0;

  /**
   * @param start every unknown where the course begins
   * @param source the driving source; all others keep their value at rest
   * @param unknown that is looked at
   * @param longest step that will be asked for, seconds
   * @param steps that will be asked for, about
   */
  constructor(
    equations: LargeSignalEquations,
    start: Float64Array,
    source: string,
    private readonly unknown: number,
    longest: number,
    steps: number,
  ) {
    this.stepper = new Stepper(equations, start);
    this.rest = new Float64Array(equations.size);
    this.rows = [];
    for (const term of equations.system.sources) {
      const { part, row, sign } = term;
      if (part === source) this.rows.push({ row, sign });
      else this.rest[row] += sign * constantOf(term, equations.values.all);
    }
    this.rhs = new Float64Array(equations.size);
    const drive: RightHandSide = { at: (t) => this.rhsFor(this.alongLine(t)) };
    this.pace = new Pace(this.stepper, drive, TOLERANCE, longest);
    this.out = start[unknown];
    if (steps < PAYS_FROM) return;
    this.quick = new QuickStepper(equations, this.stepper, {
      rest: this.rest,
      restRows: new Set(equations.system.sources.map(({ row }) => row)),
      inputs: this.rows,
      outputs: [unknown],
    });
  }

  /**
   * One step.
   *
   * @param volts of the source at its end
   * @param afterJump the source jumped where the step begins
   * @throws ReedError `convergence` naming time and device
   */
  step(seconds: number, volts: number, afterJump: boolean): void {
    const from = this.now;
    const to = from + seconds;
    this.line = { from, to, before: afterJump ? volts : this.volts, after: volts };
    if (afterJump) this.stepper.fresh = true;
    this.volts = volts;
    if (this.compiled(seconds, volts)) this.now = to;
    else {
      this.quick?.leave();
      if (this.trapezoidal(seconds, volts)) this.now = to;
      while (this.now < to) this.now = this.pace.step(this.now, to, 1);
      this.out = this.stepper.x[this.unknown];
    }
  }

  private compiled(seconds: number, volts: number): boolean {
    const kernel = this.quick?.ready(seconds);
    if (!kernel) return false;
    kernel.inputs.fill(volts, 0, this.rows.length);
    if (this.quick!.take(kernel, seconds, TRAPEZOIDAL, 1) === 0) return false;
    this.out = kernel.outputs[0];
    return true;
  }

  /** A step that is given is first tried by the cheap rule. */
  private trapezoidal(seconds: number, volts: number): boolean {
    const error = this.stepper.tryTrapezoidal(seconds, this.rhsFor(volts), TRAPEZOIDAL);
    if (error <= 1) this.stepper.take(seconds);
    return error <= 1;
  }

  private alongLine(t: number): number {
    const { from, to, before, after } = this.line;
    return before + ((after - before) * (t - from)) / (to - from);
  }

  private rhsFor(volts: number): Float64Array {
    this.rhs.set(this.rest);
    for (const { row, sign } of this.rows) this.rhs[row] += sign * volts;
    return this.rhs;
  }
}
