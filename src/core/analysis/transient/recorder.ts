/** Times and some unknowns at each, in arrays that grow. */
export class Recorder {
  private length = 0;
  private times: Float64Array;
  private readonly columns: Float64Array[];
  /** How many of the unknowns are not ground. */
  private readonly row: number;

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
    this.row = unknowns.filter((unknown) => unknown >= 0).length;
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
    this.makeRoom(count);
    const { columns, unknowns, times, length, row } = this;
    for (let i = 0; i < count; i++) times[length + i] = (first + i) * step;
    let place = from * row;
    for (let n = 0; n < unknowns.length; n++)
      if (unknowns[n] >= 0) copyEvery(values, place++, every * row, columns[n], length, count);
    this.length += count;
  }

  private makeRoom(count: number): void {
    const { times, columns } = this;
    if (this.length + count <= times.length) return;
    const larger = (array: Float64Array): Float64Array => {
      const grown = new Float64Array(2 * array.length + count);
      grown.set(array);
      return grown;
    };
    this.times = larger(times);
    columns.forEach((column, i) => (columns[i] = larger(column)));
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

/** Every `stride`-th of some numbers, one after the other. */
function copyEvery(
  values: Float64Array,
  from: number,
  stride: number,
  into: Float64Array,
  at: number,
  count: number,
): void {
  for (let i = 0; i < count; i++, from += stride) into[at + i] = values[from];
}
