import { inWords } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import type { LargeSignalEquations } from '../large-signal/equations';
import { Stepper } from './stepper';

const MOST_HALVINGS = 24;

/** A circuit with bent characteristics, led through time by a source whose volts are given step by step. */
export class Course {
  private readonly stepper: Stepper;
  private readonly rhs: Float64Array;
  private readonly rest: Float64Array;
  private readonly rows: { row: number; sign: number }[];
  private volts = 0;

  /**
   * @param start every unknown where the course begins
   * @param source the driving source; all others keep their value at rest
   */
  constructor(equations: LargeSignalEquations, start: Float64Array, source: string) {
    this.stepper = new Stepper(equations, start);
    this.rest = new Float64Array(equations.size);
    this.rows = [];
    for (const { part, row, sign, dc } of equations.system.sources) {
      if (part === source) this.rows.push({ row, sign });
      else this.rest[row] += sign * dc;
    }
    this.rhs = new Float64Array(equations.size);
  }

  get x(): Float64Array {
    return this.stepper.x;
  }

  /**
   * One step, halved where Newton's method does not settle.
   *
   * @param volts of the source at its end
   * @param afterJump the source jumped where the step begins
   * @throws ReedError `convergence` naming the device
   */
  step(seconds: number, volts: number, afterJump: boolean, halvings = 0): void {
    this.rhs.set(this.rest);
    for (const { row, sign } of this.rows) this.rhs[row] += sign * volts;
    if (this.stepper.step(seconds, this.rhs, afterJump ? 'euler' : 'trapezoidal')) {
      this.volts = volts;
      return;
    }
    if (halvings > MOST_HALVINGS)
      throw new ReedError(
        'convergence',
        `The course stops within ${inWords(seconds, 'seconds')}: ${this.stepper.culprit || 'the circuit'} jumps faster than any step can follow. Give it a small capacitance or a resistance in series.`,
        { part: this.stepper.culprit.replace(/^part /, '') },
      );
    const middle = afterJump ? volts : (this.volts + volts) / 2;
    this.step(seconds / 2, middle, afterJump, halvings + 1);
    this.step(seconds / 2, volts, false, halvings + 1);
  }
}
