import { STEP } from './step-devices';
import { even, type StepLayout } from './step-layout';
import type { SteppedCircuit } from './stepped-circuit';
import { ONE, ZERO, type Algebra, type SignedProduct, type Term } from './terms';
import type { Code } from './wasm';

/**
 * The rows of a circuit, devices aside: their entries, their state where a step begins, and what they
 * lack there.
 */
export class StepRows {
  /** Unknowns that follow from the sources and the state at once. */
  readonly known = new Map<number, Term>();
  /** Charge and rate, of rows that store. */
  readonly state = new Map<number, { charge: Term; rate: Term }>();
  /** Where the passes begin. */
  private readonly starts = new Map<number, Term>();
  private inputs: Term[] = [];
  private readonly step: Code;

  /**
   * @param points locals that hold where the last points stand, newest first
   * @param inputAt local that holds where the step's given numbers stand
   */
  constructor(
    private readonly algebra: Algebra,
    private readonly circuit: SteppedCircuit,
    private readonly layout: StepLayout,
    private readonly points: readonly number[],
    private readonly inputAt: number,
  ) {
    this.step = algebra.loops[STEP];
  }

  /** The parabola through the last three points, for what does not follow from the sources at once. */
  predict(): void {
    const { step, layout, points, circuit } = this;
    const storing = new Set(this.storingRows());
    const guessed = new Set(circuit.order.unknowns);
    for (const { unknown, row } of circuit.order.known) if (storing.has(row)) guessed.add(unknown);
    for (let at = 0; at < 8 * even(circuit.pattern.size); at += 16) {
      if (!guessed.has(at / 8) && !guessed.has(at / 8 + 1)) continue;
      step.number(0);
      for (let i = 0; i < 3; i++) {
        step.get(points[i]).loadPair(at);
        step
          .number(0)
          .loadPair(layout.parabola + 16 * i)
          .pair('mul');
        if (i > 0) step.pair('add');
      }
      step.storePair(layout.guess + at);
    }
  }

  /** The state, the step's given numbers, and what follows from them. */
  begin(): void {
    const { algebra, circuit, layout, step } = this;
    this.inputs = circuit.inputs.map((_, i) => {
      step.get(this.inputAt).loadDouble(8 * i);
      return algebra.local();
    });
    // The state changes from step to step: it must not be worked out beforehand.
    for (const row of this.storingRows()) {
      const [charge, rate] = [layout.charges, layout.rates].map((at) => {
        step.number(0).loadDouble(at + 8 * row);
        return algebra.local();
      });
      this.state.set(row, { charge, rate });
    }
    for (const { unknown, row, slot } of circuit.order.known) {
      // What a row says of one unknown only; by its change, where charges would hide it.
      const [from, left] = this.state.has(row)
        ? [this.start(unknown), this.residual(row)]
        : [ZERO, this.residual(row, unknown)];
      const change = { negative: false, a: left, b: algebra.reciprocal(this.entry(slot)) };
      this.known.set(unknown, algebra.sum(from, [change]));
    }
  }

  /** Where an unknown begins: what it is known to be, or where the parabola leads. */
  start(unknown: number): Term {
    const { algebra, step, layout } = this;
    const found = this.known.get(unknown) ?? this.starts.get(unknown);
    if (found) return found;
    step.number(0).loadDouble(layout.guess + 8 * unknown);
    const start = algebra.local();
    this.starts.set(unknown, start);
    return start;
  }

  /**
   * What a row lacks at the start, devices aside: b + K + pace (Q - C x) - G x. Solved for by changes,
   * equations do not lose slow charges in rounding step after step.
   *
   * @param except an unknown that is left out
   */
  residual(row: number, except = -1): Term {
    const { algebra, circuit, layout } = this;
    const { rows, columns } = circuit.pattern;
    const state = this.state.get(row);
    const right: SignedProduct[] = circuit.inputs.flatMap((input, i) =>
      input.row === row ? [{ negative: input.sign < 0, a: ONE, b: this.inputs[i] }] : [],
    );
    const stored: SignedProduct[] = [];
    rows.forEach((at, slot) => {
      if (at !== row || columns[slot] === except) return;
      const [g, c] = [this.conductance(slot), this.storage(slot)];
      if (g.kind !== 'zero') right.push({ negative: true, a: g, b: this.start(columns[slot]) });
      if (c.kind !== 'zero') stored.push({ negative: true, a: c, b: this.start(columns[slot]) });
    });
    if (state) {
      const moved = algebra.sum(state.charge, stored);
      right.push({ negative: false, a: algebra.board(layout.pace), b: moved });
      right.push({ negative: false, a: ONE, b: state.rate });
    }
    const rest = circuit.restRows.has(row) ? algebra.board(layout.rest + 8 * row) : ZERO;
    return algebra.sum(rest, right);
  }

  private conductance(slot: number): Term {
    const { circuit, algebra, layout } = this;
    if (circuit.resistive[slot] === 0) return ZERO;
    const fixed = circuit.pattern.ones[slot];
    if (fixed !== 0) return fixed > 0 ? ONE : algebra.negative(ONE);
    return algebra.board(layout.conductance + 8 * slot);
  }

  storage(slot: number): Term {
    const { circuit, algebra, layout } = this;
    return circuit.reactive[slot] === 0 ? ZERO : algebra.board(layout.storage + 8 * slot);
  }

  /** Of the Jacobian, devices aside. */
  entry(slot: number): Term {
    const { circuit, algebra, layout } = this;
    if (circuit.reactive[slot] === 0) return this.conductance(slot);
    return algebra.board(layout.matrix + 8 * slot);
  }

  /** Rows with charges that matter. */
  private storingRows(): number[] {
    const { circuit } = this;
    const rows = new Set<number>();
    circuit.pattern.rows.forEach((row, slot) => {
      if (circuit.reactive[slot]) rows.add(row);
    });
    for (const device of new Set(circuit.pairs.flat()))
      for (const { from, to, charged } of device.flows)
        if (charged) for (const row of [from, to]) if (row >= 0) rows.add(row);
    return [...rows].filter((row) => !circuit.order.looseRows.has(row)).sort((a, b) => a - b);
  }
}
