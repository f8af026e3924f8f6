import type { SlotMatrix } from '../linear/matrix';
import { SOUND_CHANGES } from '../linear/trust';
import { StepElimination } from './step-elimination';
import { FINAL, PairCode, PASS, STEP, type DevicePair } from './step-devices';
import { even, stepLayout, type StepLayout, type StepShape } from './step-layout';
import type { StepOrder } from './step-order';
import { Algebra, ONE, ZERO, type SignedProduct, type Term } from './terms';
import { Code, I32, moduleOf, V128 } from './wasm';
import { SINGLE } from './word';

/** Newton's method gives up after so many passes: the step is then left to the careful stepper. */
const MOST_PASSES = 12;

/** The circuit that steps are compiled for. */
export interface SteppedCircuit {
  pattern: SlotMatrix;
  /** 1 for each slot that parts write a conductance to, devices aside, and a capacitance. */
  resistive: Uint8Array;
  reactive: Uint8Array;
  nets: number;
  pairs: readonly DevicePair[];
  order: StepOrder;
  /** Rows with a right-hand side that stays. */
  restRows: ReadonlySet<number>;
  /** What each number given for a step is added to. */
  inputs: readonly { row: number; sign: number }[];
  /** Unknowns written down after each step. */
  outputs: readonly number[];
  /** Parts of a net's size: what counts at least, how fast it is forgotten, volts that always count. */
  size: { least: number; forgetting: number; volts: number };
}

/** Why a step was not taken. */
export enum Refusal {
  unsettled,
  /** Its pivots lost digits. */
  pivots,
  /** It does not fulfil its equations. */
  unfulfilled,
  /** It was found, and errs too much. */
  error,
}

export interface StepKernel {
  bytes: Uint8Array<ArrayBuffer>;
  layout: StepLayout;
  /** Memory it needs. */
  memory: number;
}

/**
 * Steps of the trapezoidal rule as one module: devices, Newton's method, elimination and the loop over
 * time.
 *
 * - `board()` works out what only changes with the values of the parts or the length of the step;
 * - `advance(steps)` takes steps of one length, each with its given numbers, until one does not settle
 *   or errs too much; that one leaves no trace.
 *
 * With charges Q and rates K where it begins, a step solves pace (Q(x) - Q) + S(x) = b + K, with
 * pace = 2/h, for the change from the parabola through the last three points; each pass replaces devices by their tangents (the companion form: L. O. Chua, P.-M. Lin,
 * "Computer-Aided Analysis of Electronic Circuits", 1975), and eliminates what they touch last.
 */
export function stepKernel(circuit: SteppedCircuit, steps: number): StepKernel {
  const shape: StepShape = {
    slots: circuit.pattern.rows.length,
    unknowns: circuit.pattern.size,
    nets: circuit.nets,
    pairs: circuit.pairs,
    inputs: circuit.inputs.length,
    outputs: circuit.outputs.length,
    steps,
  };
  const layout = stepLayout(shape);
  const writer = new StepWriter(circuit, layout);
  const { fold, advance } = writer.write();
  const bytes = moduleOf([
    { name: 'board', parameters: [], code: fold },
    { name: 'advance', parameters: [I32], code: advance },
  ]);
  return { bytes, layout, memory: writer.end };
}

class StepWriter {
  /** How far memory is used. */
  end: number;
  private readonly fold = new Code([]);
  private readonly advance = new Code([I32]);
  private readonly step = this.advance.stretch();
  private readonly pass = this.advance.stretch();
  private readonly final = this.advance.stretch();
  private readonly algebra: Algebra;
  private readonly devices: PairCode[];
  private readonly elimination: StepElimination;
  /** Pointers: the four points, and the present step's inputs and outputs. */
  private readonly points = [0, 1, 2, 3].map(() => this.advance.local(I32));
  private readonly inputAt = this.advance.local(I32);
  private readonly outputAt = this.advance.local(I32);
  private readonly passes = this.advance.local(I32);
  /** How far a step has come: see Refusal. */
  private readonly stage = this.advance.local(I32);
  /** All ones as long as no drop of a pass moved too far. */
  private readonly settled = this.advance.local(V128);
  /** The next point in pairs, by the first unknown of each. */
  private readonly next = new Map<number, number>();
  /** Of the nets that may err the first of each pair. */
  private readonly judged: number[] = [];
  private readonly known = new Map<number, Term>();
  /** Where the passes begin, and where they led to. */
  private readonly starts = new Map<number, Term>();
  private readonly ends = new Map<number, Term>();
  private inputs: Term[] = [];
  /** Charge and rate, of rows that store, where the step begins. */
  private readonly state = new Map<number, { charge: Term; rate: Term }>();
  /** Charges of the same rows where it ends. */
  private readonly charges = new Map<number, Term>();

  constructor(
    private readonly circuit: SteppedCircuit,
    private readonly layout: StepLayout,
  ) {
    this.end = layout.own;
    const allocate = (): number => {
      const at = this.end;
      this.end += SINGLE.bytes;
      return at;
    };
    this.algebra = new Algebra(SINGLE, this.fold, [this.step, this.pass, this.final], allocate);
    this.devices = circuit.pairs.map(
      (pair, i) => new PairCode(this.algebra, pair, layout.constants[i], layout.pace),
    );
    this.elimination = new StepElimination(this.algebra, circuit.order, layout.doubt);
  }

  write(): { fold: Code; advance: Code } {
    const { advance, step, pass, final, layout, passes, settled } = this;
    this.predict();
    this.prepare();
    this.newtonPass();
    this.finish();

    this.points.forEach((point, i) =>
      advance
        .number(0)
        .loadWhole(layout.order + 4 * i)
        .set(point),
    );
    advance.number(layout.inputs).set(this.inputAt);
    advance.number(layout.outputs).set(this.outputAt);
    advance.block().loop();
    advance.get(0).whole('isZero').branchIf(1);
    advance.number(Refusal.unsettled).set(this.stage).append(step);
    advance.number(MOST_PASSES).set(passes).loop();
    advance.pairOfBits(-1, -1).set(settled).append(pass);
    // Once more, as long as it moves; out of all three when there have been enough passes.
    advance.get(settled).both().whole('isZero').when();
    advance.get(passes).number(1).whole('sub').tee(passes).branchIf(1).branch(3);
    advance.end().end();
    advance.append(final);
    this.turn();
    advance.branch(0).end().end();
    advance.number(0).get(0).storeWhole(layout.left);
    advance.number(0).get(this.stage).storeWhole(layout.refusal);
    this.points.forEach((point, i) =>
      advance
        .number(0)
        .get(point)
        .storeWhole(layout.order + 4 * i),
    );
    return { fold: this.fold, advance };
  }

  /** The parabola through the last three points, for what does not follow from the sources at once. */
  private predict(): void {
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

  /** Right-hand sides, unknowns that follow from them at once, and where the passes begin. */
  private prepare(): void {
    const { algebra, circuit, layout, step, elimination } = this;
    algebra.level = STEP;
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
    circuit.order.rows.forEach((row, i) => elimination.drive(i, this.residual(row)));
    circuit.order.slots.forEach((slot, i) => elimination.enter(i, this.entry(slot)));
    for (const device of this.devices) device.begin((unknown) => this.start(unknown));
  }

  /** Where an unknown begins: what it is known to be, or where the parabola leads. */
  private start(unknown: number): Term {
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
  private residual(row: number, except = -1): Term {
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

  private storage(slot: number): Term {
    const { circuit, algebra, layout } = this;
    return circuit.reactive[slot] === 0 ? ZERO : algebra.board(layout.storage + 8 * slot);
  }

  /** Of the Jacobian, devices aside. */
  private entry(slot: number): Term {
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

  private newtonPass(): void {
    const { algebra, elimination } = this;
    algebra.level = PASS;
    const wanted = new Set<number>();
    for (const device of this.devices) {
      device.evaluate({
        slope: (row, unknown, value) => {
          if (!this.known.has(unknown)) elimination.stamp(row, unknown, value);
        },
        pull: (row, value) => elimination.pull(row, value),
      });
    }
    for (const { drops } of this.circuit.pairs.flat())
      for (const unknown of drops.flat())
        if (unknown >= 0 && !this.known.has(unknown)) wanted.add(unknown);
    elimination.eliminate();
    elimination.substitute(wanted);
    const change = (unknown: number) =>
      this.known.has(unknown) ? ZERO : elimination.found(unknown);
    for (const device of this.devices) device.move(change, this.settled);
  }

  /** Where an unknown has got to. */
  private found(unknown: number): Term {
    const found = this.known.get(unknown) ?? this.ends.get(unknown);
    if (found) return found;
    const change = { negative: false, a: ONE, b: this.elimination.found(unknown) };
    const end = this.algebra.sum(this.start(unknown), [change]);
    this.ends.set(unknown, end);
    return end;
  }

  /** What is left to find, the error of the step, and the state that it leaves. */
  private finish(): void {
    const { algebra, circuit, final, elimination, points } = this;
    algebra.level = FINAL;
    // Out of the block of all steps when the pivots lost too much.
    final.number(Refusal.pivots).set(this.stage);
    elimination.pushDoubt();
    final.double(SOUND_CHANGES).single('atMost').whole('isZero').branchIf(1);
    elimination.substitute(new Set(circuit.order.unknowns));
    const currents = new Map<number, Term[]>();
    for (const device of this.devices)
      device.currentsInto((row, value) => currents.set(row, [...(currents.get(row) ?? []), value]));
    final.number(Refusal.unfulfilled).set(this.stage);
    elimination.pushFulfilled(currents);
    final.whole('isZero').branchIf(1);
    // In pairs, as they are read again: two halves would have to reach memory before.
    const { looseUnknowns } = circuit.order;
    for (let unknown = 0; unknown < circuit.pattern.size; unknown += 2) {
      if (looseUnknowns.has(unknown) && looseUnknowns.has(unknown + 1)) continue;
      final.get(points[3]);
      this.pushPoint(unknown);
      final.pair('splat');
      this.pushPoint(unknown + 1);
      final.secondLane();
      const both = final.local(V128);
      this.next.set(unknown, both);
      final.tee(both).storePair(8 * unknown);
    }
    final.number(Refusal.error).set(this.stage);
    this.findCharges();
    this.checkError();
    this.keepState();
  }

  /** An unknown at the end of the step; those that are left out stay as they are. */
  private pushPoint(unknown: number): void {
    const { algebra, circuit, final, points } = this;
    if (unknown >= circuit.pattern.size || circuit.order.looseUnknowns.has(unknown))
      final.get(points[3]).loadDouble(8 * unknown);
    else algebra.push(this.found(unknown), FINAL);
  }

  /** Charges at the end of the step. */
  private findCharges(): void {
    const { algebra, circuit, state } = this;
    const parts = new Map<number, SignedProduct[]>();
    const add = (row: number, a: Term, b: Term) => {
      if (state.has(row)) parts.set(row, [...(parts.get(row) ?? []), { negative: false, a, b }]);
    };
    circuit.pattern.rows.forEach((row, slot) => {
      if (circuit.reactive[slot] && state.has(row))
        add(row, this.storage(slot), this.found(circuit.pattern.columns[slot]));
    });
    for (const device of this.devices) device.chargesInto((row, value) => add(row, ONE, value));
    for (const row of state.keys()) this.charges.set(row, algebra.sum(ZERO, parts.get(row)!));
  }

  /**
   * Leaves the steps where charges erred too much: by what their distance from the parabola through
   * the last three does to the nets (L. F. Shampine's filter: fast modes, which follow at once, do not
   * count).
   */
  private checkError(): void {
    const { final, layout, circuit, algebra } = this;
    const { least, volts } = circuit.size;
    const strictness = algebra.board(layout.strictness);
    const wrong = new Map<number, Term>();
    const weights = [0, 1, 2].map((i) => algebra.board(layout.parabola + 16 * i));
    for (const [row, { charge }] of this.state) {
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
    const { algebra, circuit, devices } = this;
    const { rows, columns } = circuit.pattern;
    const errors = new Map<number, Term>();
    const errorOf = (unknown: number): Term => errors.get(unknown) ?? ZERO;
    const leftOf = (row: number): Term =>
      algebra.sum(
        wrong.get(row) ?? ZERO,
        Array.from(rows.keys()).flatMap((slot): SignedProduct[] =>
          rows[slot] === row
            ? [{ negative: true, a: this.entry(slot), b: errorOf(columns[slot]) }]
            : [],
        ),
      );
    for (const { unknown, row, slot } of circuit.order.known) {
      const error = algebra.product(leftOf(row), algebra.reciprocal(this.entry(slot)));
      if (error.kind !== 'zero') errors.set(unknown, error);
    }
    const left = new Map(circuit.order.rows.map((row) => [row, leftOf(row)]));
    const subtract = (row: number, value: Term) => {
      const before = left.get(row);
      if (before) left.set(row, algebra.sum(before, [{ negative: true, a: ONE, b: value }]));
    };
    for (const device of devices) if (device.touches(errors)) device.changeInto(errorOf, subtract);
    for (const [unknown, error] of this.elimination.solveAgain(left)) errors.set(unknown, error);
    return errors;
  }

  private keepState(): void {
    const { algebra, circuit, final, layout, points } = this;
    const pace = algebra.board(layout.pace);
    const keep = (at: number, value: Term) => {
      final.number(0);
      algebra.push(value, FINAL);
      final.storeDouble(at);
    };
    const [last, before] = layout.earlierCharges;
    for (const [row, start] of this.state) {
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
        .get(this.outputAt)
        .get(points[3])
        .loadDouble(8 * unknown)
        .storeDouble(8 * i),
    );
  }

  /** The next point is now the present one; on to the next step. */
  private turn(): void {
    const { advance, points, circuit } = this;
    for (const point of points) advance.get(point);
    // Top of the stack first: what was to be the next point becomes the present one.
    advance.set(points[0]).set(points[3]).set(points[2]).set(points[1]);
    advance
      .get(this.inputAt)
      .number(8 * circuit.inputs.length)
      .whole('add')
      .set(this.inputAt);
    advance
      .get(this.outputAt)
      .number(8 * circuit.outputs.length)
      .whole('add')
      .set(this.outputAt);
    advance.get(0).number(1).whole('sub').set(0);
  }
}
