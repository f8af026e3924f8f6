import type { SlotMatrix } from './matrix';
import { planElimination, type Plan } from './plan';

/** A pivot smaller than this part of the terms it came from has lost its digits. */
const CANCELLED = 1e-11;

/**
 * Solves real systems of one fixed pattern again and again, as Newton's method and time stepping do.
 * Elimination follows a plan made for the first values; when a pivot of it cancels for later values,
 * a new plan is made for those. `values` has one number for each slot of the pattern.
 */
export class RealSolver {
  private plan: Plan | undefined;
  private v = new Float64Array(0);
  private readonly b: Float64Array;

  constructor(private readonly pattern: SlotMatrix) {
    this.b = new Float64Array(pattern.size);
  }

  /** @throws SingularPlan when the matrix has no unique solution */
  factor(values: Float64Array): void {
    if (this.plan && this.eliminate(values)) return;
    this.plan = planElimination(this.pattern, [
      { re: values, im: new Float64Array(values.length) },
    ]);
    if (this.v.length !== this.plan.slots) this.v = new Float64Array(this.plan.slots);
    this.eliminate(values);
  }

  /** Multipliers below the pivots, reciprocals on them; false when a pivot cancelled. */
  private eliminate(values: Float64Array): boolean {
    const plan = this.plan!;
    const { v } = this;
    for (let slot = 0; slot < v.length; slot++) v[slot] = slot < values.length ? values[slot] : 0;
    for (let k = 0; k < plan.size; k++) {
      const p = plan.pivotSlot[k];
      const own = p < values.length ? Math.abs(values[p]) : 0;
      if (!(Math.abs(v[p]) > CANCELLED * own)) return false;
      const inverse = 1 / v[p];
      v[p] = inverse;
      let target = plan.targetStart[k];
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
        const factor = (v[plan.lowerSlot[l]] *= inverse);
        for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
          v[plan.targetSlot[target++]] -= factor * v[plan.upperSlot[u]];
        }
      }
    }
    return true;
  }

  /** Solve for a right-hand side by equation; `x` is filled by unknown. May be the same array. */
  solve(rhs: Float64Array, x: Float64Array): void {
    const plan = this.plan!;
    const { v, b } = this;
    for (let i = 0; i < b.length; i++) b[i] = rhs[i];
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
