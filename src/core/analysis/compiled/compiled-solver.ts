import type { ComplexTrace } from '../ac/complex';
import type { TransferSolver } from '../linear/batch-solver';
import type { SlotMatrix } from '../linear/matrix';
import type { KernelLayout } from './frequency-kernel';

/** A compiled kernel. */
export interface CompiledKernel {
  module: WebAssembly.Module;
  layout: KernelLayout;
  width: number;
  /** Rows whose right-hand side is not zero. */
  rhsRows: Int32Array;
}

interface Exports {
  board(): void;
  sweep(bytes: number): void;
}

/** A kernel with its memory: at any time it holds the values of one matrix. */
export class CompiledSolver implements TransferSolver {
  readonly width: number;
  readonly xRe: Float64Array;
  readonly xIm: Float64Array;
  readonly yRe: Float64Array;
  readonly yIm: Float64Array;
  readonly doubt: Float64Array;
  private readonly omega: Float64Array;
  private readonly values: Float64Array;
  private readonly run: Exports;
  private matrix: SlotMatrix | undefined;
  private filledRevision = -1;
  private last: { omega: Float64Array; from: number; count: number } = {
    omega: new Float64Array(0),
    from: 0,
    count: 0,
  };

  constructor(
    size: number,
    slots: number,
    rhs: ComplexTrace,
    { module, layout, width, rhsRows }: CompiledKernel,
  ) {
    const memory = new WebAssembly.Memory({ initial: layout.bytes / 65536 });
    const view = (at: number, length: number) => new Float64Array(memory.buffer, at, length);
    this.width = width;
    const all = width * size;
    this.xRe = view(layout.xRe, all);
    this.xIm = view(layout.xIm, all);
    this.yRe = view(layout.yRe, all);
    this.yIm = view(layout.yIm, all);
    this.omega = view(layout.omega, width);
    this.doubt = view(layout.doubt, width);
    this.values = view(layout.matrix, 4 * slots);
    const right = view(layout.rhs, 4 * rhsRows.length);
    rhsRows.forEach((row, n) => {
      right.fill(rhs.re[row], 4 * n, 4 * n + 2);
      right.fill(rhs.im[row], 4 * n + 2, 4 * n + 4);
    });
    this.run = new WebAssembly.Instance(module, { env: { memory } }).exports as unknown as Exports;
  }

  /** Solve with the values of this matrix from now on. */
  of(matrix: SlotMatrix): this {
    if (this.matrix !== matrix) this.filledRevision = -1;
    this.matrix = matrix;
    return this;
  }

  solve(omega: Float64Array, from: number, count: number): void {
    this.takeValues();
    this.takeFrequencies(omega, from, count);
    this.run.sweep(8 * (count + (count % 2)));
  }

  /** Every unknown at one frequency, or every row of the transposed solution. */
  single(omega: number, transposed: boolean): ComplexTrace {
    this.solve(Float64Array.of(omega), 0, 1);
    const every = (all: Float64Array) => firstOfEach(all, this.width);
    const [re, im] = transposed ? [this.yRe, this.yIm] : [this.xRe, this.xIm];
    return { re: every(re), im: every(im) };
  }

  /** Questions are not changed once they are asked: the last one's frequencies need not be copied again. */
  private takeFrequencies(omega: Float64Array, from: number, count: number): void {
    const { last } = this;
    if (last.omega === omega && last.from === from && last.count === count) return;
    this.last = { omega, from, count };
    const own = this.omega;
    for (let k = 0; k < count; k++) own[k] = omega[from + k];
    // The last pair is filled up.
    if (count % 2 === 1) own[count] = own[count - 1];
  }

  private takeValues(): void {
    const { values } = this;
    const { g, c, revision } = this.matrix!;
    if (this.filledRevision === revision) return;
    this.filledRevision = revision;
    const storage = 2 * g.length;
    for (let slot = 0, at = 0; slot < g.length; slot++, at += 2) {
      values[at] = values[at + 1] = g[slot];
      values[storage + at] = values[storage + at + 1] = c[slot];
    }
    this.run.board();
  }
}

/** The first lane of every unknown. */
function firstOfEach(lanes: Float64Array, width: number): Float64Array {
  const first = new Float64Array(Math.ceil(lanes.length / width));
  for (let i = 0; i < first.length; i++) first[i] = lanes[i * width];
  return first;
}
