import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import type { RightHandSide, Stepper } from './stepper';

/** Of the step that is asked for, what an implicit Euler step after a jump takes. */
const AFTER_JUMP = 1e-6;
const SHORTEST = 1e-12;
const MOST_TRIES = 60;
const LEAST_GROWTH = 0.2;
const MOST_GROWTH = 3;
/** The embedded solution is of order 3, so that its error goes by the fourth power of the step. */
const ORDER = 4;
const CAUTION = 0.9;

/** Chooses the steps of a run so that each one's error stays within tolerance. */
export class Pace {
  /** The step that is tried next, seconds. */
  h: number;

  /**
   * @param tolerance error of a step as a part of each voltage's swing
   * @param longest step
   */
  constructor(
    private readonly stepper: Stepper,
    private readonly drive: RightHandSide,
    private readonly tolerance: number,
    private readonly longest: number,
  ) {
    this.h = longest;
  }

  /**
   * One step towards `goal`, as long as its error allows; shorter ones are tried until one does.
   *
   * @param side of the goal that is meant, if a source jumps there
   * @returns where it ends
   * @throws ReedError `convergence` naming time and device
   */
  step(t: number, goal: number, side: -1 | 1): number {
    const { stepper, drive } = this;
    if (stepper.fresh) return this.leaveJump(t, goal);
    const shortest = Math.min(SHORTEST * this.longest, goal - t);
    for (let tries = 0; ; tries++) {
      const h = this.fitting(goal - t);
      const error = stepper.tryStep(t, h, drive, t + h >= goal ? side : 1, this.tolerance);
      if (error <= 1) {
        stepper.take(h);
        const growth = error > 0 ? CAUTION * error ** (-1 / ORDER) : MOST_GROWTH;
        this.h = Math.max(this.h, h) * Math.min(MOST_GROWTH, Math.max(LEAST_GROWTH, growth));
        if (h < this.h / MOST_GROWTH && growth < MOST_GROWTH) this.h = h * growth;
        return h === goal - t ? goal : t + h;
      }
      // What changes too fast for any step is passed over in the shortest, as long as it settles.
      if (h <= shortest || tries > MOST_TRIES) {
        if (error === Infinity) throw stuck(stepper, t);
        stepper.take(h);
        return h === goal - t ? goal : t + h;
      }
      this.h =
        error === Infinity || Number.isNaN(error)
          ? h / 5
          : h * Math.max(LEAST_GROWTH, CAUTION * error ** (-1 / ORDER));
    }
  }

  /** A step that leaves no sliver before the goal. */
  private fitting(room: number): number {
    const h = Math.min(this.h, this.longest);
    return h > 0.9 * room ? room : h > 0.5 * room ? room / 2 : h;
  }

  /** After a jump the rates are not known: a very short step of implicit Euler finds them. */
  private leaveJump(t: number, goal: number): number {
    const { stepper, drive } = this;
    let h = Math.min(AFTER_JUMP * this.longest, goal - t);
    for (let tries = 0; !stepper.euler(h, drive.at(t + h, 1)); tries++) {
      if (tries > 30) throw stuck(stepper, t);
      h /= 4;
    }
    stepper.take(h);
    this.h = Math.min(this.h, 100 * h);
    return t + h;
  }
}

export function stuck(stepper: Stepper, t: number): ReedError {
  return new ReedError(
    'convergence',
    `The run stops at ${inWords(t, 'seconds')}: ${stepper.culprit || 'the circuit'} jumps faster than any step can follow. Give it a small capacitance or a resistance in series.`,
    { part: stepper.culprit.replace(/^part /, '') },
  );
}
