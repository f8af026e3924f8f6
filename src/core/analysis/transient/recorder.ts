/** Times and some unknowns at each, in arrays that grow. */
export class Recorder {
  private length = 0;
  private readonly columns: Float64Array[];

  /**
   * @param unknowns which are recorded; -1 for ground
   * @param x where they stand whenever `take` is called
   */
  constructor(
    private readonly unknowns: readonly number[],
    private readonly x: Float64Array,
  ) {
    this.columns = Array.from({ length: unknowns.length + 1 }, () => new Float64Array(1024));
  }

  take(t: number): void {
    const { columns, unknowns, x } = this;
    if (this.length === columns[0].length)
      columns.forEach((column, i) => {
        columns[i] = new Float64Array(2 * column.length);
        columns[i].set(column);
      });
    columns[0][this.length] = t;
    for (let i = 0; i < unknowns.length; i++)
      columns[i + 1][this.length] = unknowns[i] < 0 ? 0 : x[unknowns[i]];
    this.length++;
  }

  times(): Float64Array {
    return this.columns[0].slice(0, this.length);
  }

  /** Of the i-th unknown. */
  volts(i: number): Float64Array {
    return this.columns[i + 1].slice(0, this.length);
  }
}
