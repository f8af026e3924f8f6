import type { SlotMatrix } from '../linear/matrix';
import type { Plan } from '../linear/plan';
import type { Program } from '../linear/program';
import {
  minusProduct,
  NOTHING,
  product,
  quotient,
  reciprocal,
  isNothing,
  type ComplexTerm,
} from './complex-terms';
import { Largest } from './doubt';
import { Algebra, ONE, ZERO, type Term } from './terms';
import { Code, I32, moduleOf, V128 } from './wasm';
import { PAIR } from './word';

/** Bytes of two doubles. */
const PAIR_BYTES = PAIR.bytes;

/** Where things stand in the memory of a kernel, in bytes. */
export interface KernelLayout {
  /** G by slot, then C by slot, each a pair of lanes. */
  matrix: number;
  /** Right-hand side by driven row of the program, real and imaginary pairs. */
  rhs: number;
  /** Frequencies, radians a second: `width` doubles. */
  omega: number;
  /** How much pivots cancelled, by frequency. */
  doubt: number;
  /** Solutions by unknown, `width` doubles each: real parts, then imaginary parts. */
  xRe: number;
  xIm: number;
  /** The transposed solution by equation, likewise. */
  yRe: number;
  yIm: number;
  /** Everything, rounded up to pages. */
  bytes: number;
}

export interface FrequencyKernel {
  bytes: Uint8Array<ArrayBuffer>;
  layout: KernelLayout;
  /** Frequencies a run takes at most. */
  width: number;
}

/**
 * The steps of a program as one module of straight-line code for two lanes, two frequencies of one
 * board or one frequency of two boards:
 *
 * - `board()` works out, from the values of the matrix, everything that no frequency changes;
 * - `sweep(pairs)` solves for pairs of frequencies, one after the other.
 *
 * Numbers are followed through the elimination by what they are: nothing, plus or minus one, a
 * board's number times a power of omega, or anything else; only the last costs work at each frequency.
 *
 * @param transposedFor also solve the transposed equations for what bears on this unknown
 */
export function frequencyKernel(
  matrix: SlotMatrix,
  plan: Plan,
  program: Program,
  width: number,
  transposedFor?: number,
): FrequencyKernel {
  const layout = layoutOf(matrix, program, width);
  const constants = { next: layout.bytes };
  const allocate = (): number => {
    const at = constants.next;
    constants.next += PAIR_BYTES;
    return at;
  };
  const fold = new Code([]);
  const loop = new Code([I32]);
  const writer = new KernelWriter(matrix, plan, program, layout, fold, loop, allocate);
  writer.begin();
  writer.eliminate();
  writer.substitute();
  if (transposedFor !== undefined) writer.transposed(transposedFor);
  writer.end();
  layout.bytes = Math.ceil(constants.next / 65536) * 65536;
  const bytes = moduleOf([
    { name: 'board', parameters: [], code: fold },
    { name: 'sweep', parameters: [I32], code: loop },
  ]);
  return { bytes, layout, width };
}

function layoutOf(matrix: SlotMatrix, program: Program, width: number): KernelLayout {
  let next = 0;
  const take = (bytes: number): number => {
    const at = next;
    next += Math.ceil(bytes / PAIR_BYTES) * PAIR_BYTES;
    return at;
  };
  const slots = matrix.rows.length;
  return {
    matrix: take(2 * slots * PAIR_BYTES),
    rhs: take(2 * program.rhsRows.length * PAIR_BYTES),
    omega: take(8 * width),
    doubt: take(8 * width),
    xRe: take(8 * width * matrix.size),
    xIm: take(8 * width * matrix.size),
    yRe: take(8 * width * matrix.size),
    yIm: take(8 * width * matrix.size),
    bytes: next,
  };
}

class KernelWriter {
  private readonly algebra: Algebra;
  private readonly values: ComplexTerm[];
  private readonly multipliers: ComplexTerm[] = [];
  private readonly inverses: ComplexTerm[] = [];
  private readonly largest = new Map<number, Largest>();
  private readonly right: ComplexTerm[];
  private readonly x: ComplexTerm[];
  private readonly i: number;
  private readonly doubt: number;
  /** Where the doubt of what is worked out once a board is gathered. */
  private readonly boardDoubt: number;

  constructor(
    private readonly matrix: SlotMatrix,
    private readonly plan: Plan,
    private readonly program: Program,
    private readonly layout: KernelLayout,
    private readonly fold: Code,
    private readonly loop: Code,
    allocate: () => number,
  ) {
    this.i = loop.local(I32);
    const omega = loop.local(V128);
    this.omega = omega;
    this.doubt = loop.local(V128);
    this.boardDoubt = allocate();
    this.algebra = new Algebra(PAIR, fold, [loop], allocate, omega);
    this.values = Array.from({ length: plan.slots }, (_, slot) => this.entry(slot));
    this.right = Array.from({ length: plan.size }, () => NOTHING);
    program.rhsRows.forEach((row, n) => {
      const at = layout.rhs + 2 * n * PAIR_BYTES;
      this.right[row] = { re: this.algebra.board(at), im: this.algebra.board(at + PAIR_BYTES) };
    });
    this.x = Array.from({ length: plan.size }, () => NOTHING);
  }

  private readonly omega: number;

  /** An entry of the matrix; what elimination fills in begins as nothing. */
  private entry(slot: number): ComplexTerm {
    const { matrix, layout, algebra } = this;
    if (slot >= matrix.rows.length) return NOTHING;
    const fixed = matrix.ones[slot];
    const re: Term = fixed
      ? { kind: 'one', negative: fixed < 0 }
      : matrix.resistive[slot]
        ? algebra.board(layout.matrix + slot * PAIR_BYTES)
        : ZERO;
    const c = layout.matrix + (matrix.rows.length + slot) * PAIR_BYTES;
    return { re, im: matrix.reactive[slot] ? algebra.board(c, 1) : ZERO };
  }

  /** for (i = 0; i < 16 pairs; i += 16) */
  begin(): void {
    const { fold, loop, layout } = this;
    fold.number(0).pairOf(1).storePair(this.boardDoubt);
    loop.block().loop();
    loop.get(this.i).get(0).whole('below').whole('isZero').branchIf(1);
    loop.get(this.i).loadPair(layout.omega).set(this.omega);
    loop.number(0).loadPair(this.boardDoubt).set(this.doubt);
  }

  eliminate(): void {
    const { pivots, lowers, lowerStart, updates, updateStart } = this.program;
    const { algebra, values, right } = this;
    const guarded = new Set<number>();
    for (let n = 0; n < pivots.length; n += 3) if (pivots[n + 2] === 1) guarded.add(pivots[n + 1]);
    for (let n = 0; n < pivots.length; n += 3) {
      const [slot, k] = [pivots[n], pivots[n + 1]];
      if (!guarded.has(k)) continue;
      const largest = new Largest(algebra);
      largest.note(values[slot]);
      this.largest.set(k, largest);
    }
    for (let n = 0, step = 0; n < pivots.length; n += 3, step++) {
      const [slot, k] = [pivots[n], pivots[n + 1]];
      this.invert(slot, k);
      for (let m = lowerStart[step]; m < lowerStart[step + 1]; m++) {
        const l = lowers[3 * m];
        this.multipliers[l] = quotient(algebra, values[l], values[slot], this.inverses[k]);
        const [target, row] = [lowers[3 * m + 1], lowers[3 * m + 2]];
        if (target >= 0)
          right[target] = minusProduct(algebra, right[target], this.multipliers[l], right[row]);
      }
      for (let m = updateStart[step]; m < updateStart[step + 1]; m++) {
        const [target, l, u, guard] = updates.subarray(4 * m, 4 * m + 4);
        const largest = guard < 0 ? undefined : this.largest.get(guard);
        if (!largest) {
          values[target] = minusProduct(algebra, values[target], this.multipliers[l], values[u]);
          continue;
        }
        const term = product(algebra, this.multipliers[l], values[u]);
        largest.note(term);
        values[target] = minusProduct(algebra, values[target], { re: ONE, im: ZERO }, term);
      }
    }
  }

  private invert(slot: number, k: number): void {
    const { algebra, loop, fold } = this;
    const { inverse, inverseSquare } = reciprocal(algebra, this.values[slot]);
    this.inverses[k] = inverse;
    const lost = this.largest.get(k)?.over(inverseSquare);
    if (!lost || lost.kind === 'zero') return;
    // The newer of the two is asked first: what is no number is then kept.
    if (lost.kind === 'board' && lost.power === 0) {
      fold.number(0).number(0).loadPair(this.boardDoubt).number(0).loadPair(lost.at);
      fold.pair('pmax').storePair(this.boardDoubt);
      return;
    }
    loop.get(this.doubt);
    algebra.push(lost);
    loop.pair('pmax').set(this.doubt);
  }

  substitute(): void {
    const { backs, terms, termStart } = this.program;
    const { algebra, x } = this;
    for (let n = 0, step = 0; n < backs.length; n += 4, step++) {
      const [unknown, row, k, driven] = backs.subarray(n, n + 4);
      let value = driven === 1 ? this.right[row] : NOTHING;
      for (let m = termStart[step]; m < termStart[step + 1]; m++)
        value = minusProduct(algebra, value, this.values[terms[2 * m]], x[terms[2 * m + 1]]);
      x[unknown] = product(algebra, value, this.inverses[k]);
      this.store(x[unknown], this.layout.xRe, this.layout.xIm, unknown);
    }
  }

  /** A^T y = e(unknown), with the factors at hand; needs a program for all unknowns. */
  transposed(unknown: number): void {
    const { algebra, plan, values, multipliers } = this;
    const c: ComplexTerm[] = Array.from({ length: plan.size }, () => NOTHING);
    c[unknown] = { re: ONE, im: ZERO };
    for (let k = 0; k < plan.size; k++) {
      const z = plan.pivotColumn[k];
      if (isNothing(c[z])) continue;
      c[z] = product(algebra, c[z], this.inverses[k]);
      for (let m = plan.upperStart[k]; m < plan.upperStart[k + 1]; m++) {
        const to = plan.upperColumn[m];
        c[to] = minusProduct(algebra, c[to], values[plan.upperSlot[m]], c[z]);
      }
    }
    const y: ComplexTerm[] = Array.from({ length: plan.size }, () => NOTHING);
    for (let k = plan.size - 1; k >= 0; k--) {
      const row = plan.pivotRow[k];
      let value = c[plan.pivotColumn[k]];
      for (let m = plan.lowerStart[k]; m < plan.lowerStart[k + 1]; m++)
        value = minusProduct(algebra, value, multipliers[plan.lowerSlot[m]], y[plan.lowerRow[m]]);
      y[row] = value;
      this.store(value, this.layout.yRe, this.layout.yIm, row);
    }
  }

  private store({ re, im }: ComplexTerm, atRe: number, atIm: number, index: number): void {
    const { algebra, loop } = this;
    const offset = index * (this.layout.doubt - this.layout.omega);
    for (const [part, at] of [
      [re, atRe],
      [im, atIm],
    ] as const) {
      if (part.kind === 'zero') continue;
      loop.get(this.i);
      algebra.push(part);
      loop.storePair(at + offset);
      this.keepSound(part);
    }
  }

  /** doubt += 0 x: what is no number, or infinite, makes the doubt no number. */
  private keepSound(part: Term): void {
    if (part.kind !== 'local') return;
    const { loop } = this;
    loop.get(this.doubt);
    this.algebra.push(part);
    loop.pairOf(0).pair('mul').pair('add').set(this.doubt);
  }

  end(): void {
    const { loop, layout } = this;
    loop.get(this.i).get(this.doubt).storePair(layout.doubt);
    loop.get(this.i).number(PAIR_BYTES).whole('add').set(this.i);
    loop.branch(0).end().end();
  }
}
