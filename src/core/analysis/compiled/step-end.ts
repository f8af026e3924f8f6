import { FINAL, type PairCode } from './step-devices';
import type { StepElimination } from './step-elimination';
import type { StepLayout } from './step-layout';
import type { StepRows } from './step-rows';
import type { SteppedCircuit } from './stepped-circuit';
import { ONE, ZERO, type Algebra, type SignedProduct, type Term } from './terms';
import { V128, type Code } from './wasm';

/** What a step is made of. */
export interface StepParts {
  algebra: Algebra;
  circuit: SteppedCircuit;
  layout: StepLayout;
  rows: StepRows;
  devices: readonly PairCode[];
  elimination: StepElimination;
  /** Local that holds where the next point is to stand. */
  nextAt: number;
}

/** The end of a step: its point and charges, its error, and the state that it leaves. */
export class StepEnd {
  /** Where unknowns have got to. */
  private readonly ends = new Map<number, Term>();
  /** The next point in pairs, by the first unknown of each. */
  private readonly next = new Map<number, number>();
  /** Of the nets that may err the first of each pair. */
  private readonly judged: number[] = [];
  /** Charges of rows that store. */
  private readonly charges = new Map<number, Term>();
  private readonly final: Code;

  constructor(private readonly parts: StepParts) {
    this.final = parts.algebra.loops[FINAL];
  }

  /** Where an unknown has got to. */
  private found(unknown: number): Term {
    const { rows, elimination, algebra } = this.parts;
    const found = rows.known.get(unknown) ?? this.ends.get(unknown);
    if (found) return found;
    const change = { negative: false, a: ONE, b: elimination.found(unknown) };
    const end = algebra.sum(rows.start(unknown), [change]);
    this.ends.set(unknown, end);
    return end;
  }

  /** The next point, in pairs, as it is read again: two halves would have to reach memory before. */
  storePoint(): void {
    const { final } = this;
    const { circuit, nextAt } = this.parts;
    const { looseUnknowns } = circuit.order;
    for (let unknown = 0; unknown < circuit.pattern.size; unknown += 2) {
      if (looseUnknowns.has(unknown) && looseUnknowns.has(unknown + 1)) continue;
      final.get(nextAt);
      this.pushPoint(unknown);
      final.pair('splat');
      this.pushPoint(unknown + 1);
      final.secondLane();
      const both = final.local(V128);
      this.next.set(unknown, both);
      final.tee(both).storePair(8 * unknown);
    }
  }

  /** An unknown at the end of the step; those that are left out stay as they are. */
  private pushPoint(unknown: number): void {
    const { final } = this;
    const { algebra, circuit, nextAt } = this.parts;
    if (unknown >= circuit.pattern.size || circuit.order.looseUnknowns.has(unknown))
      final.get(nextAt).loadDouble(8 * unknown);
    else algebra.push(this.found(unknown), FINAL);
  }

  /** Charges at the end of the step. */
  findCharges(): void {
    const { algebra, circuit, rows, devices } = this.parts;
    const { state } = rows;
    const terms = new Map<number, SignedProduct[]>();
    const add = (row: number, a: Term, b: Term) => {
      if (state.has(row)) terms.set(row, [...(terms.get(row) ?? []), { negative: false, a, b }]);
    };
    circuit.pattern.rows.forEach((row, slot) => {
      if (circuit.reactive[slot] && state.has(row))
        add(row, rows.storage(slot), this.found(circuit.pattern.columns[slot]));
    });
    for (const device of devices) device.chargesInto((row, value) => add(row, ONE, value));
    for (const row of state.keys()) this.charges.set(row, algebra.sum(ZERO, terms.get(row)!));
  }

  /**
   * Leaves the steps where charges erred too much: by what their distance from the parabola through
   * the last three does to the nets (L. F. Shampine's filter: fast modes, which follow at once, do not
   * count).
   */
  checkError(): void {
    const { final } = this;
    const { layout, circuit, algebra, rows } = this.parts;
    const { least, volts } = circuit.size;
    const strictness = algebra.board(layout.strictness);
    const wrong = new Map<number, Term>();
    const weights = [0, 1, 2].map((i) => algebra.board(layout.parabola + 16 * i));
    for (const [row, { charge }] of rows.state) {
      const before = layout.earlierCharges.map((at) => {
        final.number(0).loadDouble(at + 8 * row);
        return algebra.local();
      });
      const off = algebra.sum(
        this.charges.get(row)!,
        [charge, ...before].map((b, i) => ({ negative: true, a: weights[i], b })),
      );
      wrong.set(row, algebra.product(off, strictness));
    }
    const errors = this.errorsOf(wrong);
    const push = (net: number) => algebra.push(errors.get(net) ?? ZERO, FINAL);
    final.pairOfBits(-1, -1);
    for (let net = 0; net < circuit.nets; net += 2) {
      if (!errors.has(net) && !errors.has(net + 1)) continue;
      this.judged.push(net);
      push(net);
      final.pair('splat');
      // What fills up the last pair has no say.
      if (net + 1 < circuit.nets) push(net + 1);
      else final.double(0);
      final.secondLane().pair('abs');
      const at = 8 * net;
      final
        .number(0)
        .loadPair(layout.swing + at)
        .pairOf(least)
        .pair('mul');
      final
        .number(0)
        .loadPair(layout.late + at)
        .pair('pmax');
      final.get(this.next.get(net)!).pair('abs').pair('pmax').pairOf(volts).pair('add');
      final.pair('atMost').pair('and');
    }
    final.both().whole('isZero').branchIf(1);
  }

  /** What errors of rows do to unknowns: first to those that follow one by one, then to the others. */
  private errorsOf(wrong: ReadonlyMap<number, Term>): Map<number, Term> {
    const { algebra, circuit, devices, rows, elimination } = this.parts;
    const { pattern } = circuit;
    const errors = new Map<number, Term>();
    const errorOf = (unknown: number): Term => errors.get(unknown) ?? ZERO;
    const leftOf = (row: number): Term =>
      algebra.sum(
        wrong.get(row) ?? ZERO,
        Array.from(pattern.rows.keys()).flatMap((slot): SignedProduct[] =>
          pattern.rows[slot] === row
            ? [{ negative: true, a: rows.entry(slot), b: errorOf(pattern.columns[slot]) }]
            : [],
        ),
      );
    for (const { unknown, row, slot } of circuit.order.known) {
      const error = algebra.product(leftOf(row), algebra.reciprocal(rows.entry(slot)));
      if (error.kind !== 'zero') errors.set(unknown, error);
    }
    const left = new Map(circuit.order.rows.map((row) => [row, leftOf(row)]));
    const subtract = (row: number, value: Term) => {
      const before = left.get(row);
      if (before) left.set(row, algebra.sum(before, [{ negative: true, a: ONE, b: value }]));
    };
    for (const device of devices) if (device.touches(errors)) device.changeInto(errorOf, subtract);
    for (const [unknown, error] of elimination.solveAgain(left)) errors.set(unknown, error);
    return errors;
  }

  /**
   * The state that the step leaves, and what is written down of it.
   *
   * @param outputAt local that holds where
   */
  keepState(outputAt: number): void {
    const { final } = this;
    const { algebra, circuit, layout, rows, nextAt } = this.parts;
    const pace = algebra.board(layout.pace);
    const keep = (at: number, value: Term) => {
      final.number(0);
      algebra.push(value, FINAL);
      final.storeDouble(at);
    };
    const [last, before] = layout.earlierCharges;
    for (const [row, start] of rows.state) {
      const charge = this.charges.get(row)!;
      const gain = algebra.sum(charge, [{ negative: true, a: ONE, b: start.charge }]);
      const rate = algebra.sum(algebra.negative(start.rate), [
        { negative: false, a: pace, b: gain },
      ]);
      final
        .number(0)
        .number(0)
        .loadDouble(last + 8 * row)
        .storeDouble(before + 8 * row);
      keep(last + 8 * row, start.charge);
      keep(layout.charges + 8 * row, charge);
      keep(layout.rates + 8 * row, rate);
    }
    const { forgetting } = circuit.size;
    for (const net of this.judged) {
      for (const [where, kept] of [
        [layout.swing, 1],
        [layout.late, forgetting],
      ] as const) {
        final
          .number(0)
          .number(0)
          .loadPair(where + 8 * net);
        if (kept !== 1) final.pairOf(kept).pair('mul');
        final
          .get(this.next.get(net)!)
          .pair('abs')
          .pair('pmax')
          .storePair(where + 8 * net);
      }
    }
    circuit.outputs.forEach((unknown, i) =>
      final
        .get(outputAt)
        .get(nextAt)
        .loadDouble(8 * unknown)
        .storeDouble(8 * i),
    );
  }
}
