/** Times and some unknowns at each, in arrays that grow. */
export class Recorder {
  private length = 0;
  private times: Float64Array;
  private readonly columns: Float64Array[];

  /**
   * @param unknowns which are recorded; -1 for ground
   * @param x where they stand whenever `take` is called
   * @param expected how many times
   */
  constructor(
    readonly unknowns: readonly number[],
    private readonly x: Float64Array,
    expected = 1024,
  ) {
    this.times = new Float64Array(expected);
    this.columns = unknowns.map(() => new Float64Array(expected));
  }

  take(t: number): void {
    const { columns, unknowns, x } = this;
    this.makeRoom(1);
    this.times[this.length] = t;
    for (let i = 0; i < unknowns.length; i++)
      columns[i][this.length] = unknowns[i] < 0 ? 0 : x[unknowns[i]];
    this.length++;
  }

  /**
   * The times first, first + 1, ... of a grid.
   *
   * @param step of the grid, seconds
   * @param values of the recorded unknowns, ground left out, row after row
   * @param from the row of the first time
   * @param every how many rows there is a time
   */
  takeAll(
    count: number,
    first: number,
    step: number,
    values: Float64Array,
    from: number,
    every: number,
  ): void {
    const { columns, unknowns, times, length } = this.makeRoom(count);
    for (let i = 0; i < count; i++) times[length + i] = (first + i) * step;
    const row = unknowns.filter((unknown) => unknown >= 0).length;
    const stride = every * row;
    let place = from * row;
    unknowns.forEach((unknown, n) => {
      if (unknown < 0) return;
      const column = columns[n];
      for (let i = 0, at = place; i < count; i++, at += stride) column[length + i] = values[at];
      place++;
    });
    this.length += count;
  }

  private makeRoom(count: number): this {
    const { times, columns } = this;
    if (this.length + count <= times.length) return this;
    const larger = (array: Float64Array): Float64Array => {
      const grown = new Float64Array(2 * array.length + count);
      grown.set(array);
      return grown;
    };
    this.times = larger(times);
    columns.forEach((column, i) => (columns[i] = larger(column)));
    return this;
  }

  timesSeconds(): Float64Array {
    return this.filled(this.times);
  }

  /** Of the i-th unknown. */
  volts(i: number): Float64Array {
    return this.filled(this.columns[i]);
  }

  /** Without the room that was not used. */
  private filled(array: Float64Array): Float64Array {
    return array.length === this.length ? array : array.slice(0, this.length);
  }
}
