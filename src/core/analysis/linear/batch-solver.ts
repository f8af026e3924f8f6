/** Solves the small-signal equations at a batch of neighbouring frequencies. */
export interface BatchSolver {
  /** Frequencies a batch holds at most. */
  readonly width: number;
  /** Values of the wanted unknowns: unknown u at frequency k of the batch is at u * width + k. */
  readonly xRe: Float64Array;
  readonly xIm: Float64Array;
  /**
   * How much the worst pivot of each frequency of the last batch cancelled: the square of its largest
   * term over itself. 1 where none did, infinite or no number where one vanished; see trust.ts.
   */
  readonly doubt: Float64Array;
  /**
   * Solve at `omega[from .. from + count)` with the matrix's present values.
   *
   * @param omega never changed afterwards: it is known again by itself
   * @param count at most `width`
   */
  solve(omega: Float64Array, from: number, count: number): void;
}

/** The same with the transposed equations beside them, for what bears on one unknown. */
export interface TransferSolver extends BatchSolver {
  /** What a unit put into equation r does to that unknown, at r * width + k. */
  readonly yRe: Float64Array;
  readonly yIm: Float64Array;
}
