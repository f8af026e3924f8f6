import type { Entry } from '@/core/circuit/compile';
import type { Product } from '@/core/circuit/stamper';
import { ReedError } from '@/core/errors';
import {
  long,
  multiple,
  product,
  Remainder,
  quotient,
  sum,
  ZERO,
  type Long,
} from '@/core/numeric/double-double';
import type { ComplexTrace } from '../ac/complex';
import type { SlotMatrix } from './matrix';

/** An entry of G or C in two doubles: a resistance of 3 ohms is a third of a siemens to 32 digits. */
function exactEntry({ scale, factors }: Product, values: ArrayLike<number>): Long {
  let value = long(scale);
  for (const [parameter, power] of factors) {
    const p = long(values[parameter]);
    if (power === 1) value = product(value, p);
    else if (power === -1) value = quotient(value, p);
    else value = product(value, long(values[parameter] ** power));
  }
  return value;
}

const unusable = (part: string): ReedError =>
  new ReedError(
    'range',
    `Part “${part}” has a value that no equation can be written with: it must be above zero and finite.`,
    { part },
  );

/** One place of G + s C. */
export interface ExactSlot {
  row: number;
  column: number;
  g: Long;
  c: Long;
  /** Sizes of the largest terms of both: what is far below them is rounding. */
  mostG: number;
  mostC: number;
}

/**
 * G and C summed up in two doubles, so that a small conductance beside a large one is still there
 * when the large one cancels out.
 */
export class ExactMatrix {
  readonly slots: readonly ExactSlot[];

  /**
   * @param entries of the matrix, in the order of its `slotOfEntry`
   * @throws ReedError `range` naming a part whose value cannot be used
   */
  constructor(
    { rows, columns, slotOfEntry, size }: SlotMatrix,
    entries: readonly Entry[],
    values: ArrayLike<number>,
  ) {
    this.size = size;
    const slots = Array.from(rows, (row, slot): ExactSlot => {
      return { row, column: columns[slot], g: ZERO, c: ZERO, mostG: 0, mostC: 0 };
    });
    entries.forEach((entry, i) => {
      const slot = slots[slotOfEntry[i]];
      const value = exactEntry(entry, values);
      if (!Number.isFinite(value.hi)) throw unusable(entry.part);
      if (entry.reactive) {
        slot.c = sum(slot.c, value);
        slot.mostC = Math.max(slot.mostC, Math.abs(value.hi));
      } else {
        slot.g = sum(slot.g, value);
        slot.mostG = Math.max(slot.mostG, Math.abs(value.hi));
      }
    });
    this.slots = slots;
  }

  readonly size: number;

  /**
   * What x leaves of rhs - (G + j omega C) x, or of the transposed equations, accurate however much
   * of it cancels.
   */
  residual(omega: number, rhs: ComplexTrace, x: ComplexTrace, transposed = false): ComplexTrace {
    const left = (this.left ??= new Remainder(this.size));
    left.begin(rhs);
    for (const { row, column, g, c } of this.slots) {
      const [i, j] = transposed ? [column, row] : [row, column];
      const [xr, xi] = [x.re[j], x.im[j]];
      if (xr === 0 && xi === 0) continue;
      if (g.hi !== 0) {
        left.subtract(2 * i, g.hi, g.lo, xr);
        left.subtract(2 * i + 1, g.hi, g.lo, xi);
      }
      if (c.hi !== 0) {
        const s = multiple(c, omega);
        left.subtract(2 * i, -s.hi, -s.lo, xi);
        left.subtract(2 * i + 1, s.hi, s.lo, xr);
      }
    }
    return left.rounded();
  }

  private left: Remainder | undefined;
}
