import type { SlotMatrix } from './matrix';
import { planElimination, SingularPlan, type Plan } from './plan';
import { REFINABLE, SOUND } from './trust';

const { abs } = Math;

/** Pivots that lost up to ten times as much (squared) do as well. */
const ALIKE = 100;

/** What is left of an equation, as a part of its terms, where its solution has lost half its digits. */
const UNFULFILLED = 1e-8;
/** After plans that did not help, so many solutions at most are left as they are before the next is tried. */
const LONGEST_PAUSE = 64;

/**
 * Solves real systems of one fixed pattern again and again, as Newton's method and time stepping do.
 * Elimination follows a plan made for the first values; when a pivot of it cancels for later values,
 * a new plan is made for those, and a solution that lost digits is refined once (see trust.ts).
 * `values` has one number for each slot of the pattern.
 */
export class RealSolver {
  private plan: Plan | undefined;
  private v = new Float64Array(0);
  private readonly b: Float64Array;
  /** Largest term that went into each pivot. */
  private readonly most: Float64Array;
  private pivotOfSlot = new Int32Array(0);
  /** 1 / r^2 of the worst pivot of the last factors. */
  private doubt = 1;
  /** Up to which doubt other pivots are not looked for. */
  private allowed = REFINABLE;
  /** What was factored. */
  private readonly own: Float64Array;
  /** Whether solutions with these factors were found to fulfil the equations. */
  private checked = false;
  /** Plans that did not help, one after the other; and how many solutions no further one is tried for. */
  private futile = 0;
  private pause = 0;
  private readonly left: Float64Array;
  private readonly right: Float64Array;
  private readonly terms: Float64Array;

  constructor(private readonly pattern: SlotMatrix) {
    this.b = new Float64Array(pattern.size);
    this.most = new Float64Array(pattern.size);
    this.left = new Float64Array(pattern.size);
    this.right = new Float64Array(pattern.size);
    this.terms = new Float64Array(pattern.size);
    this.own = new Float64Array(pattern.rows.length);
  }

  /** @throws SingularPlan when the matrix has no unique solution */
  factor(values: Float64Array): void {
    if (!this.plan || !this.eliminate(values)) {
      this.takePlan(planElimination(this.pattern, [asSample(values)]));
      this.eliminate(values);
      // No order does better for these; one that does as well need not be looked for again.
      this.allowed = Number.isFinite(this.doubt)
        ? Math.max(REFINABLE, ALIKE * this.doubt)
        : Infinity;
    }
    this.own.set(values);
    this.checked = false;
  }

  /** Choose pivots anew at the next matrix: those of far other values may serve it badly. */
  forget(): void {
    this.plan = undefined;
    this.allowed = REFINABLE;
    this.futile = this.pause = 0;
  }

  private takePlan(plan: Plan): void {
    this.plan = plan;
    if (this.v.length !== plan.slots) this.v = new Float64Array(plan.slots);
    this.pivotOfSlot = new Int32Array(plan.slots).fill(-1);
    plan.pivotSlot.forEach((slot, k) => (this.pivotOfSlot[slot] = k));
  }

  /**
   * Multipliers below the pivots, reciprocals on them.
   *
   * @returns false when a pivot has lost what made it one: others may serve better
   */
  private eliminate(values: Float64Array): boolean {
    const plan = this.plan!;
    const { v, most, pivotOfSlot } = this;
    for (let slot = 0; slot < v.length; slot++) v[slot] = slot < values.length ? values[slot] : 0;
    for (let k = 0; k < plan.size; k++) most[k] = abs(v[plan.pivotSlot[k]]);
    this.doubt = 1;
    for (let k = 0; k < plan.size; k++) {
      const p = plan.pivotSlot[k];
      const inverse = 1 / v[p];
      const cancelled = (most[k] * inverse) ** 2;
      // What is no number stays: it fails every comparison.
      if (!(cancelled <= this.doubt) && !Number.isNaN(this.doubt)) this.doubt = cancelled;
      v[p] = inverse;
      let target = plan.targetStart[k];
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
        const factor = (v[plan.lowerSlot[l]] *= inverse);
        for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
          const slot = plan.targetSlot[target++];
          const term = factor * v[plan.upperSlot[u]];
          v[slot] -= term;
          const pivot = pivotOfSlot[slot];
          if (pivot >= 0 && abs(term) > most[pivot]) most[pivot] = abs(term);
        }
      }
    }
    return this.doubt <= this.allowed || this.allowed === Infinity;
  }

  /**
   * Solve for a right-hand side by equation; `x` is filled by unknown. May be the same array.
   *
   * The equations are looked at with the solution in them: an order of pivots can spoil it by growth
   * as well as by cancellation (a small pivot, large multipliers), and is then made anew.
   */
  solve(rhs: Float64Array, x: Float64Array): void {
    const { b, right } = this;
    for (let i = 0; i < b.length; i++) b[i] = right[i] = rhs[i];
    this.substitute(x);
    if (this.checked && this.doubt <= SOUND) return;
    if (this.fulfilled(x)) {
      this.checked = true;
      if (this.doubt <= SOUND) return;
    } else if (this.pause > 0) {
      this.pause--;
    } else if (this.planAnew()) {
      for (let i = 0; i < b.length; i++) b[i] = right[i];
      this.substitute(x);
      // Where no order of pivots serves, the next matrices are seldom better off.
      this.futile = this.fulfilled(x) ? 0 : this.futile + 1;
      this.pause = this.futile === 0 ? 0 : Math.min(LONGEST_PAUSE, 2 ** this.futile);
    }
    const { left } = this;
    for (let i = 0; i < b.length; i++) b[i] = left[i];
    this.substitute(left);
    for (let i = 0; i < x.length; i++) x[i] += left[i];
  }

  /** Other pivots for what was factored; false where there are none. */
  private planAnew(): boolean {
    try {
      this.takePlan(planElimination(this.pattern, [asSample(this.own)]));
    } catch (error) {
      if (error instanceof SingularPlan) return false;
      throw error;
    }
    this.eliminate(this.own);
    return true;
  }

  /** Whether x solves every equation to some digits; what it leaves is in `left`. */
  private fulfilled(x: Float64Array): boolean {
    const { left, terms, right, own } = this;
    const { rows, columns } = this.pattern;
    for (let i = 0; i < left.length; i++) {
      left[i] = right[i];
      terms[i] = abs(right[i]);
    }
    for (let slot = 0; slot < rows.length; slot++) {
      const term = own[slot] * x[columns[slot]];
      left[rows[slot]] -= term;
      terms[rows[slot]] += abs(term);
    }
    for (let i = 0; i < left.length; i++)
      if (!(abs(left[i]) <= UNFULFILLED * terms[i])) return false;
    return true;
  }

  /** What stands in `b`, by the factors. */
  private substitute(x: Float64Array): void {
    const plan = this.plan!;
    const { v, b } = this;
    for (let k = 0; k < plan.size; k++) {
      const bk = b[plan.pivotRow[k]];
      if (bk === 0) continue;
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++)
        b[plan.lowerRow[l]] -= v[plan.lowerSlot[l]] * bk;
    }
    for (let k = plan.size - 1; k >= 0; k--) {
      let sum = b[plan.pivotRow[k]];
      for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++)
        sum -= v[plan.upperSlot[u]] * x[plan.upperColumn[u]];
      x[plan.pivotColumn[k]] = sum * v[plan.pivotSlot[k]];
    }
  }
}

const asSample = (values: Float64Array) => ({ re: values, im: new Float64Array(values.length) });
