import type { TransferSolver } from './batch-solver';
import type { FrequencySolver } from './frequency-solver';

/** The plain twin of a compiled solver that also solves the transposed equations. */
export class TwinTransfer implements TransferSolver {
  readonly width: number;
  readonly xRe: Float64Array;
  readonly xIm: Float64Array;
  readonly yRe: Float64Array;
  readonly yIm: Float64Array;
  readonly doubt: Float64Array;

  /** @param solver with a program for all unknowns */
  constructor(
    private readonly solver: FrequencySolver,
    private readonly unknown: number,
  ) {
    this.width = solver.width;
    this.xRe = solver.xRe;
    this.xIm = solver.xIm;
    this.yRe = new Float64Array(solver.xRe.length);
    this.yIm = new Float64Array(solver.xIm.length);
    this.doubt = solver.doubt;
  }

  solve(omega: Float64Array, from: number, count: number): void {
    this.solver.solve(omega, from, count);
    this.solver.solveTransposed(this.unknown, count, this.yRe, this.yIm);
  }
}
