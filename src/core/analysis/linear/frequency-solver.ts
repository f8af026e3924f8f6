import { emptyTrace, type ComplexTrace } from '../ac/complex';
import type { BatchSolver } from './batch-solver';
import { product, subtractProduct } from './lanes';
import type { SlotMatrix } from './matrix';
import type { Plan } from './plan';
import type { Program } from './program';
import { SOUND } from './trust';

export interface FrequencySolverOptions {
  /** Right-hand side by equation; the same at every frequency. */
  rhs: { re: Float64Array; im: Float64Array };
  /** What is to be done, for that right-hand side; for "all" unknowns it allows the transposed solve. */
  program: Program;
  /** How many frequencies are eliminated side by side. */
  width: number;
}

/**
 * Solves (G + j omega C) x = b for many frequencies by executing one elimination plan.
 *
 * Each step of the plan runs over a batch of `width` frequencies lying side by side in memory, so
 * that following the plan costs little and the arithmetic runs over plain typed arrays. Steps that
 * cannot reach a wanted unknown are never executed. Nothing is allocated after construction.
 */
export class FrequencySolver implements BatchSolver {
  readonly width: number;
  readonly xRe: Float64Array;
  readonly xIm: Float64Array;
  readonly doubt: Float64Array;

  private readonly program: Program;
  private readonly vRe: Float64Array;
  private readonly vIm: Float64Array;
  private readonly bRe: Float64Array;
  private readonly bIm: Float64Array;
  /** Multipliers by slot, reciprocal pivots by number, and the largest term of each pivot (squared). */
  private readonly lRe: Float64Array;
  private readonly lIm: Float64Array;
  private readonly pRe: Float64Array;
  private readonly pIm: Float64Array;
  private readonly pivotSize: Float64Array;
  private filledRevision = -1;

  constructor(
    private readonly matrix: SlotMatrix,
    private readonly plan: Plan,
    private readonly options: FrequencySolverOptions,
  ) {
    const width = (this.width = options.width);
    this.program = options.program;
    this.vRe = new Float64Array(plan.slots * width);
    this.vIm = new Float64Array(plan.slots * width);
    this.bRe = new Float64Array(plan.size * width);
    this.bIm = new Float64Array(plan.size * width);
    this.xRe = new Float64Array(plan.size * width);
    this.xIm = new Float64Array(plan.size * width);
    this.lRe = new Float64Array(plan.slots * width);
    this.lIm = new Float64Array(plan.slots * width);
    this.pRe = new Float64Array(plan.size * width);
    this.pIm = new Float64Array(plan.size * width);
    this.pivotSize = new Float64Array(plan.size * width);
    this.doubt = new Float64Array(width);
  }

  /**
   * Factor and solve at `omega[from .. from + count)` with the matrix's present values.
   *
   * @param count at most `width`
   * @returns whether every pivot was sound; where not, `doubt` says at which frequencies
   */
  solve(omega: Float64Array, from: number, count: number): boolean {
    this.fill(omega, from, count);
    this.eliminate(count);
    this.substitute(count);
    for (let k = 0; k < count; k++) if (!(this.doubt[k] <= SOUND)) return false;
    return true;
  }

  private fill(omega: Float64Array, from: number, count: number): void {
    const { vRe, vIm, bRe, bIm, width } = this;
    const { g, c, revision } = this.matrix;
    const { fillSlots, constantSlots, rhsRows } = this.program;
    const { rhs } = this.options;
    this.doubt.fill(1);
    if (this.filledRevision !== revision) {
      this.filledRevision = revision;
      for (const slot of constantSlots) vRe.fill(g[slot], slot * width, (slot + 1) * width);
    }
    for (let n = 0; n < fillSlots.length; n++) {
      const slot = fillSlots[n];
      const at = slot * width;
      const gs = slot < g.length ? g[slot] : 0;
      const cs = slot < c.length ? c[slot] : 0;
      for (let k = 0; k < count; k++) {
        vRe[at + k] = gs;
        vIm[at + k] = cs * omega[from + k];
      }
    }
    for (let n = 0; n < rhsRows.length; n++) {
      const row = rhsRows[n];
      bRe.fill(rhs.re[row], row * width, row * width + count);
      bIm.fill(rhs.im[row], row * width, row * width + count);
    }
  }

  /** Gaussian elimination; multipliers and reciprocal pivots go to arrays of their own. */
  private eliminate(count: number): void {
    const { vRe, vIm, lRe, lIm, bRe, bIm, width } = this;
    const { pivots, lowers, lowerStart, updates, updateStart } = this.program;
    this.notePivotSizes(count);
    for (let n = 0, step = 0; n < pivots.length; n += 3, step++) {
      const p = pivots[n + 1] * width;
      this.invertPivot(pivots[n] * width, p, pivots[n + 2] === 1, count);
      for (let m = lowerStart[step]; m < lowerStart[step + 1]; m++) {
        const l = lowers[3 * m] * width;
        product(lRe, lIm, l, vRe, vIm, l, this.pRe, this.pIm, p, count);
        if (lowers[3 * m + 1] >= 0) {
          subtractProduct(
            bRe,
            bIm,
            lowers[3 * m + 1] * width,
            lRe,
            lIm,
            l,
            bRe,
            bIm,
            lowers[3 * m + 2] * width,
            count,
          );
        }
      }
      for (let m = updateStart[step]; m < updateStart[step + 1]; m++) {
        const t = updates[4 * m] * width;
        const l = updates[4 * m + 1] * width;
        const u = updates[4 * m + 2] * width;
        const guard = updates[4 * m + 3];
        if (guard < 0) subtractProduct(vRe, vIm, t, lRe, lIm, l, vRe, vIm, u, count);
        else this.subtractGuarded(t, l, u, guard * width, count);
      }
    }
  }

  /** Remember how large each pivot's own entry is, to notice if elimination cancels it. */
  private notePivotSizes(count: number): void {
    const { vRe, vIm, pivotSize, width } = this;
    const { pivots } = this.program;
    for (let n = 0; n < pivots.length; n += 3) {
      if (pivots[n + 2] === 0) continue;
      const v = pivots[n] * width;
      const s = pivots[n + 1] * width;
      for (let k = 0; k < count; k++)
        pivotSize[s + k] = vRe[v + k] * vRe[v + k] + vIm[v + k] * vIm[v + k];
    }
  }

  private invertPivot(v: number, p: number, guarded: boolean, count: number): void {
    const { vRe, vIm, pRe, pIm, pivotSize, doubt } = this;
    for (let k = 0; k < count; k++) {
      const re = vRe[v + k];
      const im = vIm[v + k];
      const inverse = 1 / (re * re + im * im);
      const cancelled = guarded ? pivotSize[p + k] * inverse : inverse < Infinity ? 1 : inverse;
      // What is no number stays: it fails every comparison.
      if (!(cancelled <= doubt[k])) doubt[k] = doubt[k] === doubt[k] ? cancelled : NaN;
      pRe[p + k] = re * inverse;
      pIm[p + k] = -im * inverse;
    }
  }

  /** As `subtractProduct`, noting the largest term that went into a later pivot. */
  private subtractGuarded(t: number, l: number, u: number, size: number, count: number): void {
    const { vRe, vIm, lRe, lIm, pivotSize } = this;
    for (let k = 0; k < count; k++) {
      const lr = lRe[l + k];
      const li = lIm[l + k];
      const ur = vRe[u + k];
      const ui = vIm[u + k];
      const re = lr * ur - li * ui;
      const im = lr * ui + li * ur;
      vRe[t + k] -= re;
      vIm[t + k] -= im;
      const norm = re * re + im * im;
      if (norm > pivotSize[size + k]) pivotSize[size + k] = norm;
    }
  }

  private substitute(count: number): void {
    const { vRe, vIm, bRe, bIm, xRe, xIm, width } = this;
    const { backs, terms, termStart, zeros } = this.program;
    for (let n = 0, step = 0; n < backs.length; n += 4, step++) {
      const x = backs[n] * width;
      const b = backs[n + 1] * width;
      const p = backs[n + 2] * width;
      if (backs[n + 3] === 1) {
        for (let k = 0; k < count; k++) {
          xRe[x + k] = bRe[b + k];
          xIm[x + k] = bIm[b + k];
        }
      } else {
        xRe.fill(0, x, x + count);
        xIm.fill(0, x, x + count);
      }
      for (let m = termStart[step]; m < termStart[step + 1]; m++) {
        subtractProduct(
          xRe,
          xIm,
          x,
          vRe,
          vIm,
          terms[2 * m] * width,
          xRe,
          xIm,
          terms[2 * m + 1] * width,
          count,
        );
      }
      product(xRe, xIm, x, xRe, xIm, x, this.pRe, this.pIm, p, count);
    }
    for (const unknown of zeros) {
      xRe.fill(0, unknown * width, unknown * width + count);
      xIm.fill(0, unknown * width, unknown * width + count);
    }
  }

  /**
   * Solve A x = rhs at the first frequency of the last batch, with its factors, for another
   * right-hand side. Needs a program for all unknowns.
   */
  solveAgain(rhs: ComplexTrace): ComplexTrace {
    this.load(rhs);
    const x = emptyTrace(this.xRe.length);
    this.solveLoaded(1, x.re, x.im);
    return this.first(x);
  }

  /** The same of the transposed equations. */
  solveAgainTransposed(rhs: ComplexTrace): ComplexTrace {
    this.load(rhs);
    const y = emptyTrace(this.xRe.length);
    this.solveLoadedTransposed(1, y.re, y.im);
    return this.first(y);
  }

  private load({ re, im }: ComplexTrace): void {
    for (let i = 0; i < this.plan.size; i++) {
      this.bRe[i * this.width] = re[i];
      this.bIm[i * this.width] = im[i];
    }
  }

  private first({ re, im }: ComplexTrace): ComplexTrace {
    const { width } = this;
    if (width === 1) return { re, im };
    const pick = (a: Float64Array) =>
      Float64Array.from({ length: this.plan.size }, (_, i) => a[i * width]);
    return { re: pick(re), im: pick(im) };
  }

  /** Forward and back substitution of what stands in `b`. */
  private solveLoaded(count: number, xRe: Float64Array, xIm: Float64Array): void {
    const { vRe, vIm, lRe, lIm, pRe, pIm, width, plan, bRe, bIm } = this;
    for (let k = 0; k < plan.size; k++) {
      const from = plan.pivotRow[k] * width;
      for (let m = plan.lowerStart[k]; m < plan.lowerStart[k + 1]; m++) {
        const [to, l] = [plan.lowerRow[m] * width, plan.lowerSlot[m] * width];
        subtractProduct(bRe, bIm, to, lRe, lIm, l, bRe, bIm, from, count);
      }
    }
    for (let k = plan.size - 1; k >= 0; k--) {
      const x = plan.pivotColumn[k] * width;
      const b = plan.pivotRow[k] * width;
      for (let i = 0; i < count; i++) {
        xRe[x + i] = bRe[b + i];
        xIm[x + i] = bIm[b + i];
      }
      for (let m = plan.upperStart[k]; m < plan.upperStart[k + 1]; m++) {
        const [u, known] = [plan.upperSlot[m] * width, plan.upperColumn[m] * width];
        subtractProduct(xRe, xIm, x, vRe, vIm, u, xRe, xIm, known, count);
      }
      product(xRe, xIm, x, xRe, xIm, x, pRe, pIm, k * width, count);
    }
  }

  /**
   * Solve the transposed system A^T y = e(unknown) with the factors of the last batch: y[row] is
   * what a unit put into equation `row` does to that unknown. Needs a program for all unknowns.
   *
   * @param yRe, yIm filled with size x width values, laid out like `xRe`
   */
  solveTransposed(unknown: number, count: number, yRe: Float64Array, yIm: Float64Array): void {
    const { width } = this;
    this.bRe.fill(0);
    this.bIm.fill(0);
    this.bRe.fill(1, unknown * width, unknown * width + count);
    this.solveLoadedTransposed(count, yRe, yIm);
  }

  /** The same for what stands in `b`, by unknown. */
  private solveLoadedTransposed(count: number, yRe: Float64Array, yIm: Float64Array): void {
    const { vRe, vIm, lRe, lIm, width, plan } = this;
    const cRe = this.bRe;
    const cIm = this.bIm;
    for (let k = 0; k < plan.size; k++) {
      const z = plan.pivotColumn[k] * width;
      product(cRe, cIm, z, cRe, cIm, z, this.pRe, this.pIm, k * width, count);
      for (let m = plan.upperStart[k]; m < plan.upperStart[k + 1]; m++) {
        subtractProduct(
          cRe,
          cIm,
          plan.upperColumn[m] * width,
          vRe,
          vIm,
          plan.upperSlot[m] * width,
          cRe,
          cIm,
          z,
          count,
        );
      }
    }
    for (let k = plan.size - 1; k >= 0; k--) {
      const y = plan.pivotRow[k] * width;
      const z = plan.pivotColumn[k] * width;
      for (let i = 0; i < count; i++) {
        yRe[y + i] = cRe[z + i];
        yIm[y + i] = cIm[z + i];
      }
      for (let m = plan.lowerStart[k]; m < plan.lowerStart[k + 1]; m++) {
        subtractProduct(
          yRe,
          yIm,
          y,
          lRe,
          lIm,
          plan.lowerSlot[m] * width,
          yRe,
          yIm,
          plan.lowerRow[m] * width,
          count,
        );
      }
    }
  }
}
