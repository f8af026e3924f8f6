import type { LargeSignalEquations } from '../large-signal/equations';
import { StageSolver } from './stage';
import { DIAGONAL, DIFFERENCE, EARLIER, NODES, STAGES } from './tableau';

const { abs } = Math;

/** The right-hand side over time; `side` -1 takes it just before a jump at t. */
export interface RightHandSide {
  at(t: number, side: -1 | 1): Float64Array;
}

/** A net that swings less than this is looked at as if it swung so far, volts. */
export const LEAST_VOLTS = 1e-4;
/** A ringing that dies away keeps its phase: errors are measured by what it was some thousand steps ago ... */
export const FORGETTING = 1 - 1 / 2000;
/** ... but by no less than this part of what it ever was. */
export const LEAST_SWING = 1e-2;

/**
 * A circuit led through time, step by step. With charges Q and static currents S the equations read
 * dQ/dt + S(x) = b(t); K, the rate of each charge, is handed on from step to step.
 *
 * Each step is tried first and counts when it is taken: see `take`.
 */
export class Stepper {
  readonly x: Float64Array;
  private readonly stage: StageSolver;
  readonly charges: Float64Array;
  readonly rates: Float64Array;
  // Of the step that is being tried.
  private readonly next: Float64Array;
  private readonly stageRates: Float64Array[];
  private readonly past: Float64Array;
  private readonly nextCharges: Float64Array;
  private readonly wrong: Float64Array;
  /** Size of each unknown: the largest it ever had, and the largest of late. */
  readonly swing: Float64Array;
  readonly late: Float64Array;
  // Points before x, and charges before those at x, newest first, and the steps between them.
  readonly points: [Float64Array, Float64Array];
  readonly earlierCharges: [Float64Array, Float64Array];
  readonly gaps = new Float64Array(2);
  known = 0;

  constructor(
    private readonly equations: LargeSignalEquations,
    start: Float64Array,
  ) {
    const n = equations.size;
    const vector = () => new Float64Array(n);
    this.x = Float64Array.from(start);
    this.stage = new StageSolver(equations);
    this.charges = Float64Array.from(this.stage.chargesAt(this.x));
    this.rates = vector();
    this.next = vector();
    this.stageRates = Array.from({ length: STAGES }, vector);
    this.past = vector();
    this.nextCharges = vector();
    this.wrong = vector();
    this.swing = this.x.map(abs);
    this.late = this.swing.slice();
    this.points = [vector(), vector()];
    this.earlierCharges = [vector(), vector()];
  }

  get culprit(): string {
    return this.stage.culprit;
  }

  /** Whether a step has to find its rates first: at the start, and after a jump. */
  fresh = true;

  /**
   * Implicit Euler: of order 1, and needs nothing but the point where it begins. A step after a jump
   * is so short that its error is nothing.
   */
  euler(h: number, rhs: Float64Array): boolean {
    const { next, stageRates, charges } = this;
    next.set(this.x);
    if (!this.stage.solve(next, 1 / h, charges, rhs)) return false;
    this.conclude(stageRates[STAGES - 1], 1 / h, charges);
    return true;
  }

  /**
   * One step of the method of order 4.
   *
   * @param t where it begins
   * @param side of the end that is meant, if there is a jump
   * @returns its error in units of `tolerance` times each voltage's swing; infinite when it did not settle
   */
  tryStep(t: number, h: number, drive: RightHandSide, side: -1 | 1, tolerance: number): number {
    const { next, stageRates, past, charges, wrong } = this;
    const pace = 1 / (DIAGONAL * h);
    copy(this.rates, stageRates[0]);
    copy(this.x, next);
    for (let i = 1; i < STAGES; i++) {
      this.predict(i, h);
      copy(charges, past);
      const weights = EARLIER[i];
      for (let j = 0; j < weights.length; j++) {
        if (weights[j] !== 0) addMultiple(past, h * weights[j], stageRates[j]);
      }
      const rhs = drive.at(t + NODES[i] * h, i === STAGES - 1 ? side : 1);
      if (!this.stage.solve(next, pace, past, rhs)) return Infinity;
      this.conclude(stageRates[i], pace, past);
    }
    wrong.fill(0);
    for (let i = 0; i < STAGES; i++) addMultiple(wrong, h * DIFFERENCE[i], stageRates[i]);
    this.stage.unknownsOf(wrong, pace, wrong);
    return this.inUnits(wrong, tolerance);
  }

  /**
   * One step of the trapezoidal rule, which is cheap: for steps that are given and short. It begins on
   * the parabola through the last three points. Charges err by a twelfth of the third difference that
   * the new ones show against the parabola through theirs; infinite while too few are known.
   */
  tryTrapezoidal(h: number, rhs: Float64Array, tolerance: number): number {
    if (this.known < 2 || this.fresh) return Infinity;
    const { next, past, charges, rates, wrong, x, points, gaps, earlierCharges } = this;
    const [now, last, before] = parabola(h, gaps);
    for (let i = 0; i < x.length; i++) {
      next[i] = now * x[i] + last * points[0][i] + before * points[1][i];
      past[i] = charges[i] + (h / 2) * rates[i];
    }
    const pace = 2 / h;
    if (!this.stage.solve(next, pace, past, rhs)) return Infinity;
    this.conclude(this.stageRates[STAGES - 1], pace, past);
    const factor = trapezoidalError(h, gaps);
    const [first, second] = earlierCharges;
    for (let i = 0; i < x.length; i++) {
      const expected = now * charges[i] + last * first[i] + before * second[i];
      wrong[i] = factor * (this.nextCharges[i] - expected);
    }
    this.stage.unknownsOf(wrong, pace, wrong);
    return this.inUnits(wrong, tolerance);
  }

  /** The rates that belong to the solution of a stage. */
  private conclude(rates: Float64Array, pace: number, past: Float64Array): void {
    const { charges } = this.stage;
    for (let k = 0; k < rates.length; k++) rates[k] = pace * (charges[k] - past[k]);
    copy(charges, this.nextCharges);
  }

  /** Go on with the point that was tried last. */
  take(h: number): void {
    const { points, gaps, x, next, swing, late, earlierCharges } = this;
    points.reverse();
    copy(x, points[0]);
    earlierCharges.reverse();
    copy(this.charges, earlierCharges[0]);
    gaps[1] = gaps[0];
    gaps[0] = h;
    this.known = this.fresh ? 0 : Math.min(2, this.known + 1);
    this.fresh = false;
    copy(next, x);
    copy(this.nextCharges, this.charges);
    copy(this.stageRates[STAGES - 1], this.rates);
    for (let i = 0; i < x.length; i++) {
      const size = abs(x[i]);
      if (size > swing[i]) swing[i] = size;
      late[i] = Math.max(size, late[i] * FORGETTING);
    }
  }

  /** @returns what brings it back to where it is now */
  mark(): () => void {
    const { known, fresh } = this;
    const copies = this.history.map((vector) => vector.slice());
    return () => {
      this.history.forEach((vector, i) => copy(copies[i], vector));
      this.known = known;
      this.fresh = fresh;
    };
  }

  /** All that the next step goes on from. */
  private get history(): Float64Array[] {
    const { x, charges, rates, points, earlierCharges, swing, late, gaps } = this;
    return [x, charges, rates, ...points, ...earlierCharges, swing, late, gaps];
  }

  /** Where a stage is likely to lie: on the line through the last point and the stage before. */
  private predict(stage: number, h: number): void {
    const { next, x, points, gaps } = this;
    if (stage > 1) {
      const reach = NODES[stage] / NODES[stage - 1];
      for (let i = 0; i < x.length; i++) next[i] = x[i] + reach * (next[i] - x[i]);
    } else if (this.known > 0) {
      const reach = (NODES[1] * h) / gaps[0];
      for (let i = 0; i < x.length; i++) next[i] = x[i] + reach * (x[i] - points[0][i]);
    }
  }

  private inUnits(error: Float64Array, tolerance: number): number {
    let worst = 0;
    for (let i = 0; i < error.length; i++) {
      if (this.equations.netSlots[i] < 0) continue;
      const size = Math.max(this.late[i], LEAST_SWING * this.swing[i], abs(this.next[i]));
      const part = abs(error[i]) / (tolerance * (size + LEAST_VOLTS));
      if (!(part <= worst)) worst = part;
    }
    return worst;
  }
}

/** Weights of the last three points, newest first, in the parabola through them, h after the newest. */
export function parabola(
  h: number,
  [last, before]: ArrayLike<number> & Iterable<number>,
): [number, number, number] {
  // x + h (x - y)/last + h (h + last) ((x - y)/last - (y - z)/before) / (last + before)
  const first = h / last;
  const second = (h * (h + last)) / (last + before);
  return [1 + first + second / last, -first - second / last - second / before, second / before];
}

/**
 * What the error of a trapezoidal step is of the new point's distance from the parabola through the
 * last three: a twelfth of h^3 x''' = 6 h^3 (new - parabola) / (h (h + g0) (h + g0 + g1)).
 */
export const trapezoidalError = (h: number, [last, before]: ArrayLike<number> & Iterable<number>) =>
  (h * h) / (2 * (h + last) * (h + last + before));

/** target += factor source. */
function addMultiple(target: Float64Array, factor: number, source: Float64Array): void {
  for (let i = 0; i < target.length; i++) target[i] += factor * source[i];
}

/** A plain loop: on the few numbers of a circuit it beats the built-in copy several times over. */
function copy(from: Float64Array, to: Float64Array): void {
  for (let i = 0; i < from.length; i++) to[i] = from[i];
}
