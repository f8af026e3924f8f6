/**
 * A symmetric positive definite matrix as L L', in plain arrays and in place: searches that solve
 * thousands of small systems spend their time in allocations otherwise (G. H. Golub, C. F. Van Loan,
 * "Matrix Computations", 4th edition, algorithm 4.2.2).
 */
export class Cholesky {
  /** @param rows row by row; below the diagonal and on it L */
  private constructor(
    private readonly rows: Float64Array,
    readonly size: number,
  ) {}

  /**
   * @param matrix row by row; it is overwritten
   * @returns undefined where it is not positive definite
   */
  static of(matrix: Float64Array, size: number): Cholesky | undefined {
    for (let j = 0; j < size; j++) {
      const row = j * size;
      let pivot = matrix[row + j];
      for (let k = 0; k < j; k++) pivot -= matrix[row + k] ** 2;
      if (!(pivot > 0)) return undefined;
      pivot = Math.sqrt(pivot);
      matrix[row + j] = pivot;
      for (let i = j + 1; i < size; i++) {
        const at = i * size;
        let sum = matrix[at + j];
        for (let k = 0; k < j; k++) sum -= matrix[at + k] * matrix[row + k];
        matrix[at + j] = sum / pivot;
      }
    }
    return new Cholesky(matrix, size);
  }

  /** Logarithm of the determinant. */
  get logDet(): number {
    let sum = 0;
    for (let i = 0; i < this.size; i++) sum += 2 * Math.log(this.rows[i * (this.size + 1)]);
    return sum;
  }

  /** The solution, written over the right-hand side. */
  solve(x: Float64Array): Float64Array {
    const { rows, size } = this;
    for (let i = 0; i < size; i++) {
      let sum = x[i];
      for (let k = 0; k < i; k++) sum -= rows[i * size + k] * x[k];
      x[i] = sum / rows[i * size + i];
    }
    for (let i = size - 1; i >= 0; i--) {
      let sum = x[i];
      for (let k = i + 1; k < size; k++) sum -= rows[k * size + i] * x[k];
      x[i] = sum / rows[i * size + i];
    }
    return x;
  }

  /** The inverse, row by row. */
  inverse(): Float64Array {
    const { size } = this;
    const inverse = new Float64Array(size * size);
    for (let j = 0; j < size; j++) {
      const unit = new Float64Array(size);
      unit[j] = 1;
      inverse.set(this.solve(unit), j * size);
    }
    return inverse;
  }
}
