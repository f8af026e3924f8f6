import type { SlotMatrix } from './matrix';
import { planElimination, type Plan } from './plan';
import { REFINABLE, SOUND } from './trust';

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
  /** What was factored, while its solutions are to be refined. */
  private readonly own: Float64Array;
  private readonly left: Float64Array;

  constructor(private readonly pattern: SlotMatrix) {
    this.b = new Float64Array(pattern.size);
    this.most = new Float64Array(pattern.size);
    this.left = new Float64Array(pattern.size);
    this.own = new Float64Array(pattern.rows.length);
  }

  /** @throws SingularPlan when the matrix has no unique solution */
  factor(values: Float64Array): void {
    if (!this.plan || !this.eliminate(values)) {
      this.takePlan(
        planElimination(this.pattern, [{ re: values, im: new Float64Array(values.length) }]),
      );
      this.eliminate(values);
    }
    if (!(this.doubt <= SOUND)) this.own.set(values);
  }

  /** Choose pivots anew at the next matrix: those of far other values may serve it badly. */
  forget(): void {
    this.plan = undefined;
  }

  private takePlan(plan: Plan): void {
    this.plan = plan;
    if (this.v.length !== plan.slots) this.v = new Float64Array(plan.slots);
    this.pivotOfSlot = new Int32Array(plan.slots).fill(-1);
    plan.pivotSlot.forEach((slot, k) => (this.pivotOfSlot[slot] = k));
  }

  /** Multipliers below the pivots, reciprocals on them; false when a pivot lost what made it one. */
  private eliminate(values: Float64Array): boolean {
    const plan = this.plan!;
    const { v, most, pivotOfSlot } = this;
    for (let slot = 0; slot < v.length; slot++) v[slot] = slot < values.length ? values[slot] : 0;
    for (let k = 0; k < plan.size; k++) most[k] = Math.abs(v[plan.pivotSlot[k]]);
    this.doubt = 1;
    for (let k = 0; k < plan.size; k++) {
      const p = plan.pivotSlot[k];
      const inverse = 1 / v[p];
      const cancelled = (most[k] * inverse) ** 2;
      if (!(cancelled <= this.doubt)) this.doubt = cancelled;
      if (!(cancelled <= REFINABLE)) return false;
      v[p] = inverse;
      let target = plan.targetStart[k];
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
        const factor = (v[plan.lowerSlot[l]] *= inverse);
        for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
          const slot = plan.targetSlot[target++];
          const term = factor * v[plan.upperSlot[u]];
          v[slot] -= term;
          const pivot = pivotOfSlot[slot];
          if (pivot >= 0 && Math.abs(term) > most[pivot]) most[pivot] = Math.abs(term);
        }
      }
    }
    return true;
  }

  /** Solve for a right-hand side by equation; `x` is filled by unknown. May be the same array. */
  solve(rhs: Float64Array, x: Float64Array): void {
    const { b, left } = this;
    for (let i = 0; i < b.length; i++) b[i] = left[i] = rhs[i];
    this.substitute(x);
    if (this.doubt <= SOUND) return;
    const { rows, columns } = this.pattern;
    for (let slot = 0; slot < rows.length; slot++)
      left[rows[slot]] -= this.own[slot] * x[columns[slot]];
    for (let i = 0; i < b.length; i++) b[i] = left[i];
    this.substitute(left);
    for (let i = 0; i < x.length; i++) x[i] += left[i];
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
