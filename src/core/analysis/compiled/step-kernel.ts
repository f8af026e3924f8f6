import { SOUND_CHANGES } from '../linear/trust';
import { FINAL, PairCode, PASS, STEP } from './step-devices';
import { StepElimination } from './step-elimination';
import { StepEnd } from './step-end';
import { stepLayout, type StepLayout, type StepShape } from './step-layout';
import { StepRows } from './step-rows';
import { Refusal, type SteppedCircuit } from './stepped-circuit';
import { Algebra, ZERO } from './terms';
import { Code, I32, moduleOf, V128 } from './wasm';
import { SINGLE } from './word';

/** Newton's method gives up after so many passes: the step is then left to the careful stepper. */
const MOST_PASSES = 12;

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
 * pace = 2/h, for the change from the parabola through the last three points; each pass replaces
 * devices by their tangents (the companion form: L. O. Chua, P.-M. Lin, "Computer-Aided Analysis of
 * Electronic Circuits", 1975), and eliminates what they touch last.
 */
export function stepKernel(circuit: SteppedCircuit, steps: number): StepKernel {
  const shape: StepShape = {
    slots: circuit.pattern.rows.length,
    unknowns: circuit.pattern.size,
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
  private readonly rows: StepRows;

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
      (pair, i) =>
        new PairCode(this.algebra, pair, layout.constants[i], layout.pace, circuit.exactness.move),
    );
    this.elimination = new StepElimination(this.algebra, circuit.order, layout.doubt);
    const { algebra, points, inputAt } = this;
    this.rows = new StepRows(algebra, circuit, layout, points, inputAt);
  }

  write(): { fold: Code; advance: Code } {
    const { advance, step, pass, final, layout, passes, settled } = this;
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

  /** Right-hand sides, unknowns that follow from them at once, and where the passes begin. */
  private prepare(): void {
    const { algebra, circuit, elimination, rows } = this;
    algebra.level = STEP;
    rows.predict();
    rows.begin();
    circuit.order.rows.forEach((row, i) => elimination.drive(i, rows.residual(row)));
    circuit.order.slots.forEach((slot, i) => elimination.enter(i, rows.entry(slot)));
    for (const device of this.devices) device.begin((unknown) => rows.start(unknown));
  }

  private newtonPass(): void {
    const { algebra, elimination, rows } = this;
    algebra.level = PASS;
    const wanted = new Set<number>();
    for (const device of this.devices) {
      device.evaluate({
        slope: (row, unknown, value) => {
          if (!rows.known.has(unknown)) elimination.stamp(row, unknown, value);
        },
        pull: (row, value) => elimination.pull(row, value),
      });
    }
    for (const { drops } of this.circuit.pairs.flat())
      for (const unknown of drops.flat())
        if (unknown >= 0 && !rows.known.has(unknown)) wanted.add(unknown);
    elimination.eliminate();
    elimination.substitute(wanted);
    const change = (unknown: number) =>
      rows.known.has(unknown) ? ZERO : elimination.found(unknown);
    for (const device of this.devices) device.move(change, this.settled);
  }

  /** What is left to find, the error of the step, and the state that it leaves. */
  private finish(): void {
    const { algebra, circuit, final, elimination, rows, points } = this;
    const parts = {
      algebra,
      circuit,
      layout: this.layout,
      rows,
      devices: this.devices,
      elimination,
    };
    const end = new StepEnd({ ...parts, nextAt: points[3] });
    algebra.level = FINAL;
    // Out of the block of all steps when the pivots lost too much.
    const { judged, rest } = circuit.exactness;
    if (judged) {
      final.number(Refusal.pivots).set(this.stage);
      elimination.pushDoubt();
      final.double(SOUND_CHANGES).single('atMost').whole('isZero').branchIf(1);
    }
    elimination.substitute(new Set(circuit.order.unknowns));
    final.number(Refusal.unfulfilled).set(this.stage);
    elimination.pushFulfilled(rest);
    final.whole('isZero').branchIf(1);
    end.storePoint();
    final.number(Refusal.error).set(this.stage);
    end.findCharges();
    if (judged) end.checkError();
    end.keepState(this.outputAt);
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
