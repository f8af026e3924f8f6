import type { SlotMatrix } from '../linear/matrix';
import { SOUND } from '../linear/trust';
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
  /** 1 for each slot that parts write to, devices aside; and to which they write storage. */
  stamped: Uint8Array;
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
 * With charges Q and rates K a step solves pace Q(x) + S(x) = b + (pace Q + K) of the step before, with
 * pace = 2/h; each pass replaces devices by their tangents (the companion form: L. O. Chua, P.-M. Lin,
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
  /** All ones as long as no drop of a pass moved too far. */
  private readonly settled = this.advance.local(V128);
  /** The next point, in pairs. */
  private readonly next: number[] = [];
  private readonly known = new Map<number, Term>();
  /** pace Q + K of rows that store. */
  private readonly history = new Map<number, Term>();

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
    advance.append(step);
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
    this.points.forEach((point, i) =>
      advance
        .number(0)
        .get(point)
        .storeWhole(layout.order + 4 * i),
    );
    return { fold: this.fold, advance };
  }

  /** The parabola through the last three points. */
  private predict(): void {
    const { step, layout, points, circuit } = this;
    for (let at = 0; at < 8 * even(circuit.pattern.size); at += 16) {
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
    const inputs = circuit.inputs.map((_, i) => {
      step.get(this.inputAt).loadDouble(8 * i);
      return algebra.local();
    });
    const pace = algebra.board(layout.pace);
    for (const row of this.storingRows()) {
      const charge = algebra.board(layout.charges + 8 * row);
      const rate = algebra.board(layout.rates + 8 * row);
      // The state changes from step to step: it must not be worked out beforehand.
      step.number(0).loadDouble(charge.at);
      const q = algebra.local();
      step.number(0).loadDouble(rate.at);
      const k = algebra.local();
      this.history.set(row, algebra.sum(k, [{ negative: false, a: pace, b: q }]));
    }
    const { rows, columns } = circuit.pattern;
    const right = new Map<number, Term>();
    for (let row = 0; row < circuit.pattern.size; row++) {
      const given = circuit.inputs.flatMap((input, i): SignedProduct[] =>
        input.row === row ? [{ negative: input.sign < 0, a: ONE, b: inputs[i] }] : [],
      );
      const history = this.history.get(row);
      if (history) given.push({ negative: false, a: ONE, b: history });
      const rest = circuit.restRows.has(row) ? algebra.board(layout.rest + 8 * row) : ZERO;
      right.set(row, algebra.sum(rest, given));
    }
    const entriesOf = (row: number): number[] =>
      Array.from(rows.keys()).filter((slot) => rows[slot] === row && circuit.stamped[slot] === 1);
    const lessKnown = (row: number): Term =>
      algebra.sum(
        right.get(row)!,
        entriesOf(row).flatMap((slot) => {
          const b = this.known.get(columns[slot]);
          return b ? [{ negative: true, a: this.entry(slot), b }] : [];
        }),
      );
    for (const { unknown, row, slot } of circuit.order.known)
      this.known.set(
        unknown,
        algebra.product(lessKnown(row), algebra.reciprocal(this.entry(slot))),
      );
    circuit.order.rows.forEach((row, i) => elimination.drive(i, lessKnown(row)));
    circuit.order.slots.forEach((slot, i) => elimination.enter(i, this.entry(slot)));
    const start = (unknown: number): Term => {
      const known = this.known.get(unknown);
      if (known) return known;
      step.number(0).loadDouble(layout.guess + 8 * unknown);
      return algebra.local();
    };
    for (const device of this.devices)
      device.begin(start, (unknown) => this.knownOrGround(unknown));
  }

  private knownOrGround(unknown: number): Term | undefined {
    return unknown < 0 ? ZERO : this.known.get(unknown);
  }

  private entry(slot: number): Term {
    const { circuit, algebra, layout } = this;
    if (circuit.stamped[slot] === 0) return ZERO;
    const fixed = circuit.pattern.ones[slot];
    if (fixed !== 0) return fixed > 0 ? ONE : algebra.negative(ONE);
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
    for (const device of this.devices) device.move((unknown) => this.found(unknown), this.settled);
  }

  private found(unknown: number): Term {
    return this.known.get(unknown) ?? this.elimination.found(unknown);
  }

  /** What is left to find, the error of the step, and the state that it leaves. */
  private finish(): void {
    const { algebra, circuit, final, elimination, points } = this;
    algebra.level = FINAL;
    // Out of the block of all steps when the pivots lost too much.
    elimination.pushDoubt();
    final.double(SOUND).single('atMost').whole('isZero').branchIf(1);
    elimination.substitute(new Set(circuit.order.unknowns));
    // In pairs, as they are read again: two halves would have to reach memory before.
    for (let unknown = 0; unknown < circuit.pattern.size; unknown += 2) {
      final.get(points[3]);
      this.pushPoint(unknown);
      final.pair('splat');
      this.pushPoint(unknown + 1);
      final.secondLane();
      const both = final.local(V128);
      this.next.push(both);
      final.tee(both).storePair(8 * unknown);
    }
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

  /** Leaves the steps where |next - parabola| strictness > size of a net, for any of them. */
  private checkError(): void {
    const { final, layout, circuit } = this;
    const { least, volts } = circuit.size;
    final.pairOfBits(-1, -1);
    for (let at = 0; at < 8 * even(circuit.nets); at += 16) {
      const next = this.next[at / 16];
      final
        .get(next)
        .number(0)
        .loadPair(layout.guess + at)
        .pair('sub');
      final.pair('abs').number(0).loadPair(layout.strictness).pair('mul');
      final
        .number(0)
        .loadPair(layout.swing + at)
        .pairOf(least)
        .pair('mul');
      final
        .number(0)
        .loadPair(layout.late + at)
        .pair('pmax');
      final.get(next).pair('abs').pair('pmax').pairOf(volts).pair('add');
      final.pair('atMost').pair('and');
    }
    final.both().whole('isZero').branchIf(1);
  }

  private keepState(): void {
    const { algebra, circuit, final, layout, points } = this;
    const charges = new Map<number, SignedProduct[]>();
    const add = (row: number, a: Term, b: Term) => {
      if (this.history.has(row))
        charges.set(row, [...(charges.get(row) ?? []), { negative: false, a, b }]);
    };
    circuit.pattern.rows.forEach((row, slot) => {
      if (!circuit.reactive[slot] || !this.history.has(row)) return;
      const storage = algebra.board(layout.storage + 8 * slot);
      add(row, storage, this.found(circuit.pattern.columns[slot]));
    });
    for (const device of this.devices) device.chargesInto((row, value) => add(row, ONE, value));
    const pace = algebra.board(layout.pace);
    for (const [row, history] of this.history) {
      const charge = algebra.sum(ZERO, charges.get(row)!);
      const rate = algebra.sum(algebra.negative(history), [
        { negative: false, a: pace, b: charge },
      ]);
      for (const [at, value] of [
        [layout.charges, charge],
        [layout.rates, rate],
      ] as const) {
        final.number(0);
        algebra.push(value, FINAL);
        final.storeDouble(at + 8 * row);
      }
    }
    const { forgetting } = circuit.size;
    for (let at = 0; at < 8 * even(circuit.nets); at += 16) {
      for (const [where, kept] of [
        [layout.swing, 1],
        [layout.late, forgetting],
      ] as const) {
        final
          .number(0)
          .number(0)
          .loadPair(where + at);
        if (kept !== 1) final.pairOf(kept).pair('mul');
        final
          .get(this.next[at / 16])
          .pair('abs')
          .pair('pmax')
          .storePair(where + at);
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
