import { PASS, STEP } from './step-devices';
import type { StepOrder } from './step-order';
import { ONE, ZERO, type Algebra, type SignedProduct, type Term } from './terms';
import { F64 } from './wasm';

/** A number of the elimination: what is known before the passes, and what devices add in each. */
interface Entry {
  steady: Term;
  added: Term[];
}

/**
 * Writes the elimination of what a step has to solve. What devices add to an entry is only put to it
 * where the entry is used: until then it is worked on beforehand, once a step or once for given values.
 */
export class StepElimination {
  private readonly entries: Entry[];
  private readonly right: Entry[];
  private readonly multipliers: Term[] = [];
  private readonly inverses: Term[] = [];
  /** The terms that went into each pivot: an entry, or a product. */
  private readonly into = new Map<number, { l: Term; u: Term }[]>();
  private readonly solution = new Map<number, Term>();
  /** Equations of the passes as they were before anything of them was eliminated, by row. */
  private readonly equations: { right: Term; terms: { a: Term; column: number }[] }[] = [];
  /** Slots by row and column, those of the order. */
  private readonly slotAt: ReadonlyMap<string, number>;
  private readonly rowPlace: ReadonlyMap<number, number>;
  private readonly columnPlace: ReadonlyMap<number, number>;

  /** @param steadyDoubt where the doubt of pivots that stay is written in memory */
  constructor(
    private readonly algebra: Algebra,
    private readonly order: StepOrder,
    private readonly steadyDoubt: number,
  ) {
    const empty = (): Entry => ({ steady: ZERO, added: [] });
    const { plan } = order;
    this.entries = Array.from({ length: plan.slots }, empty);
    this.right = Array.from({ length: plan.size }, empty);
    this.rowPlace = new Map(order.rows.map((row, i) => [row, i]));
    this.columnPlace = new Map(order.unknowns.map((unknown, i) => [unknown, i]));
    const { rows, columns } = order.places;
    this.slotAt = new Map(Array.from(rows, (row, slot) => [`${row} ${columns[slot]}`, slot]));
  }

  /** An entry before the passes, by its slot among those of the order. */
  enter(slot: number, value: Term): void {
    this.entries[slot].steady = value;
  }

  /** A right-hand side before the passes, by its row among those of the order. */
  drive(row: number, value: Term): void {
    this.right[row].steady = value;
  }

  /** Something that a device adds to the entry of a row and an unknown of the circuit. */
  stamp(row: number, unknown: number, value: Term): void {
    const place = this.rowPlace.get(row);
    if (place === undefined) return;
    this.entries[this.slotAt.get(`${place} ${this.columnPlace.get(unknown)}`)!].added.push(value);
  }

  /** Something that a device takes from a row's right side. */
  pull(row: number, value: Term): void {
    const place = this.rowPlace.get(row);
    if (place !== undefined) this.right[place].added.push(this.algebra.negative(value));
  }

  /** The whole number, from where it is wanted on. */
  private whole(entry: Entry): Term {
    if (entry.added.length > 0)
      entry.steady = this.algebra.sum(
        entry.steady,
        entry.added.map((b) => ({ negative: false, a: ONE, b })),
      );
    entry.added = [];
    return entry.steady;
  }

  /** entry -= l u, before what devices add where neither comes from them. */
  private subtract(entry: Entry, l: Term, u: Term): void {
    if (this.moves(l) || this.moves(u)) this.whole(entry);
    entry.steady = this.algebra.sum(entry.steady, [{ negative: true, a: l, b: u }]);
  }

  private moves(x: Term): boolean {
    return x.kind === 'local' && x.level >= PASS;
  }

  eliminate(): void {
    const { plan } = this.order;
    const { algebra, entries, right, multipliers } = this;
    const pivotOfSlot = new Map(Array.from(plan.pivotSlot, (slot, k) => [slot, k]));
    // What has no part of a device is worked out before the passes.
    algebra.level = STEP;
    for (let k = 0; k < plan.size; k++) {
      if (k === this.order.early) this.noteEquations();
      const slot = plan.pivotSlot[k];
      const pivot = this.whole(entries[slot]);
      this.inverses[k] = algebra.reciprocal(pivot);
      const [from, to] = [plan.lowerStart[k], plan.lowerStart[k + 1]];
      let target = plan.targetStart[k];
      for (let l = from; l < to; l++) {
        const lower = this.whole(entries[plan.lowerSlot[l]]);
        const factor = algebra.product(lower, this.inverses[k]);
        multipliers[plan.lowerSlot[l]] = factor;
        if (factor.kind !== 'zero')
          this.subtract(right[plan.lowerRow[l]], factor, this.whole(right[plan.pivotRow[k]]));
        for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
          const upper = this.whole(entries[plan.upperSlot[u]]);
          const at = plan.targetSlot[target++];
          const pivotOf = pivotOfSlot.get(at);
          if (pivotOf !== undefined) this.noteTerm(pivotOf, entries[at], factor, upper);
          this.subtract(entries[at], factor, upper);
        }
      }
    }
    const steady = this.losses([...this.into.keys()].filter((k) => this.losesSteadily(k)));
    if (steady.kind === 'local') throw new Error('What stays was put among what moves.');
    algebra.fold.number(0);
    algebra.pushSteady(steady);
    algebra.fold.storeDouble(this.steadyDoubt);
    algebra.level = PASS;
  }

  /** A term that goes into a pivot, whose loss is to be known. */
  private noteTerm(k: number, entry: Entry, l: Term, u: Term): void {
    if (l.kind === 'zero' || u.kind === 'zero') return;
    const merges = entry.added.length > 0 && (this.moves(l) || this.moves(u));
    const into = this.into.get(k) ?? [];
    if (merges || into.length === 0)
      into.push({ l: ONE, u: merges ? this.whole(entry) : entry.steady });
    into.push({ l, u });
    this.into.set(k, into);
  }

  /**
   * What some pivots have lost: for each the sum of its terms' squares over its own, which is a little
   * more than the largest's (see linear/trust.ts) and needs no comparisons.
   */
  private losses(pivots: readonly number[]): Term {
    const { algebra, inverses } = this;
    const each = pivots.map((k): SignedProduct => {
      const squares = this.into.get(k)!.map(({ l, u }): SignedProduct => {
        const term = algebra.product(l, u);
        return { negative: false, a: term, b: term };
      });
      const inverseSquare = algebra.product(inverses[k], inverses[k]);
      return { negative: false, a: algebra.sum(ZERO, squares), b: inverseSquare };
    });
    return algebra.sum(ZERO, each);
  }

  /** Whether what a pivot loses is the same in every step. */
  private losesSteadily(k: number): boolean {
    const terms = this.into.get(k)!.flatMap(({ l, u }) => [l, u]);
    return [this.inverses[k], ...terms].every((x) => x.kind !== 'local');
  }

  /** Leave the doubt of the last pass on the stack of the present stretch. */
  pushDoubt(): void {
    const { algebra } = this;
    const moving = [...this.into.keys()].filter((k) => !this.losesSteadily(k));
    const steady = algebra.board(this.steadyDoubt);
    const sum = algebra.sum(steady, [{ negative: false, a: ONE, b: this.losses(moving) }]);
    algebra.push(sum, algebra.level);
  }

  /** Work out these unknowns of the circuit, and what they depend on, where they are not known yet. */
  substitute(wanted: ReadonlySet<number>): void {
    const { algebra, solution, right, entries } = this;
    const { plan, unknowns } = this.order;
    const needed = unknowns.map((unknown) => wanted.has(unknown));
    for (let k = 0; k < plan.size; k++) {
      if (!needed[plan.pivotColumn[k]]) continue;
      for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++)
        needed[plan.upperColumn[u]] = true;
    }
    for (let k = plan.size - 1; k >= 0; k--) {
      const column = plan.pivotColumn[k];
      if (!needed[column] || solution.has(column)) continue;
      const products = [];
      for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++) {
        const b = solution.get(plan.upperColumn[u])!;
        products.push({ negative: true, a: this.whole(entries[plan.upperSlot[u]]), b });
      }
      const value = algebra.sum(this.whole(right[plan.pivotRow[k]]), products);
      solution.set(column, algebra.product(value, this.inverses[k]));
    }
  }

  /**
   * Solve once more with the factors of the last pass.
   *
   * @param right by row of the circuit
   * @returns by unknown of the circuit
   */
  solveAgain(right: ReadonlyMap<number, Term>): Map<number, Term> {
    const { algebra, entries, multipliers, inverses } = this;
    const { plan, rows, unknowns } = this.order;
    const b = rows.map((row) => right.get(row) ?? ZERO);
    const minus = (from: Term, l: Term, u: Term): Term =>
      algebra.sum(from, [{ negative: true, a: l, b: u }]);
    for (let k = 0; k < plan.size; k++)
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++) {
        const row = plan.lowerRow[l];
        b[row] = minus(b[row], multipliers[plan.lowerSlot[l]], b[plan.pivotRow[k]]);
      }
    const x: Term[] = unknowns.map(() => ZERO);
    for (let k = plan.size - 1; k >= 0; k--) {
      let value = b[plan.pivotRow[k]];
      for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++)
        value = minus(value, this.whole(entries[plan.upperSlot[u]]), x[plan.upperColumn[u]]);
      x[plan.pivotColumn[k]] = algebra.product(value, inverses[k]);
    }
    return new Map(unknowns.map((unknown, i) => [unknown, x[i]]));
  }

  /** What the passes have to solve: what is left when all that devices do not touch is eliminated. */
  private noteEquations(): void {
    const { entries, right } = this;
    const { plan, early } = this.order;
    const slots = new Map<number, { row: number; column: number }>();
    for (let k = early; k < plan.size; k++) {
      const [row, column] = [plan.pivotRow[k], plan.pivotColumn[k]];
      slots.set(plan.pivotSlot[k], { row, column });
      for (let l = plan.lowerStart[k]; l < plan.lowerStart[k + 1]; l++)
        slots.set(plan.lowerSlot[l], { row: plan.lowerRow[l], column });
      for (let u = plan.upperStart[k]; u < plan.upperStart[k + 1]; u++)
        slots.set(plan.upperSlot[u], { row, column: plan.upperColumn[u] });
      this.equations[row] = { right: this.whole(right[row]), terms: [] };
    }
    for (const [slot, { row, column }] of slots) {
      const a = this.whole(entries[slot]);
      if (a.kind !== 'zero') this.equations[row].terms.push({ a, column });
    }
  }

  /**
   * Leave on the stack whether the solution fulfils the equations of the last pass: elimination in a
   * prescribed order loses digits by growth as well as by cancellation.
   *
   * @param rest what may be left of an equation, as a part of its terms
   */
  pushFulfilled(rest: number): void {
    const { algebra, solution } = this;
    const code = algebra.loops[algebra.level];
    const [left, size] = [code.local(F64), code.local(F64)];
    code.number(1);
    for (const { right, terms } of Object.values(this.equations)) {
      algebra.push(right, algebra.level);
      code.tee(left).single('abs').set(size);
      for (const { a, column } of terms) {
        const product = algebra.negative(algebra.product(a, solution.get(column)!));
        code.get(left);
        algebra.push(product, algebra.level);
        code.single('add').set(left).get(size);
        algebra.push(product, algebra.level);
        code.single('abs').single('add').set(size);
      }
      code.get(left).single('abs').get(size).double(rest).single('mul');
      code.single('atMost').whole('and');
    }
  }

  /** An unknown of the circuit that was worked out. */
  found(unknown: number): Term {
    return this.solution.get(this.columnPlace.get(unknown)!)!;
  }
}
