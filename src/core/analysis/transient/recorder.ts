/** Times and some unknowns at each, in arrays that grow. */
export class Recorder {
  private length = 0;
  private readonly columns: Float64Array[];

  /**
   * @param unknowns which are recorded; -1 for ground
   * @param x where they stand whenever `take` is called
   */
  constructor(
    readonly unknowns: readonly number[],
    private readonly x: Float64Array,
  ) {
    this.columns = Array.from({ length: unknowns.length + 1 }, () => new Float64Array(1024));
  }

  take(t: number): void {
    this.takeFrom(t, this.x, this.unknowns, 0);
  }

  /**
   * @param values where they stand instead, beginning at `from`
   * @param places of the unknowns among them; -1 for ground
   */
  takeFrom(t: number, values: Float64Array, places: readonly number[], from: number): void {
    const { columns } = this;
    if (this.length === columns[0].length)
      columns.forEach((column, i) => {
        columns[i] = new Float64Array(2 * column.length);
        columns[i].set(column);
      });
    columns[0][this.length] = t;
    for (let i = 0; i < places.length; i++)
      columns[i + 1][this.length] = places[i] < 0 ? 0 : values[from + places[i]];
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
