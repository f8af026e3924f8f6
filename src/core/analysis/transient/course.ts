import { constantOf } from '@/core/circuit/stamper';
import type { LargeSignalEquations } from '../large-signal/equations';
import { advance } from './advance';
import { Stepper } from './stepper';

/** A circuit with bent characteristics, led through time by a source whose volts are given step by step. */
export class Course {
  private readonly stepper: Stepper;
  private readonly rhs: Float64Array;
  private readonly rest: Float64Array;
  private readonly rows: { row: number; sign: number }[];
  private volts = 0;
  private now = 0;

  /**
   * @param start every unknown where the course begins
   * @param source the driving source; all others keep their value at rest
   */
  constructor(equations: LargeSignalEquations, start: Float64Array, source: string) {
    this.stepper = new Stepper(equations, start);
    this.rest = new Float64Array(equations.size);
    this.rows = [];
    for (const term of equations.system.sources) {
      const { part, row, sign } = term;
      if (part === source) this.rows.push({ row, sign });
      else this.rest[row] += sign * constantOf(term, equations.values.all);
    }
    this.rhs = new Float64Array(equations.size);
  }

  get x(): Float64Array {
    return this.stepper.x;
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
    const before = afterJump ? volts : this.volts;
    const along = (t: number) => before + ((volts - before) * (t - from)) / seconds;
    const drive = { at: (t: number) => this.rhsFor(along(t)) };
    advance(this.stepper, drive, from, from + seconds, afterJump, false);
    this.now = from + seconds;
    this.volts = volts;
  }

  private rhsFor(volts: number): Float64Array {
    this.rhs.set(this.rest);
    for (const { row, sign } of this.rows) this.rhs[row] += sign * volts;
    return this.rhs;
  }
}
