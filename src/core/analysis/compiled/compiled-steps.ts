import { lawsOf } from '@/core/circuit/laws';
import type { Law } from '@/core/circuit/laws/law';
import type { Values } from '@/core/circuit/values';
import type { LargeSignalEquations } from '../large-signal/equations';
import { SingularPlan } from '../linear/plan';
import { SOUND_CHANGES } from '../linear/trust';
import { inPairs, install, withoutCharges } from './step-devices';
import { stepKernel, type StepKernel } from './step-kernel';
import { even } from './step-layout';
import { stepOrder } from './step-order';
import { EXACT, type Exactness, type Refusal, type SteppedCircuit } from './stepped-circuit';
import { compiled } from './wasm';

/** The present law of each element. */
function lawsIn(values: Values): Law[] {
  const laws: Law[] = [];
  const { entangled, mode } = values.system;
  values
    .parts()
    .forEach((part, i) =>
      lawsOf(part, mode).forEach((law, n) => (laws[entangled[i].elements[n]] = law)),
    );
  return laws;
}

/** Steps that one call takes at most. */
const MOST_STEPS = 256;
/** Circuits with more unknowns make modules that take too long to compile. */
const MOST_UNKNOWNS = 200;

/** A circuit on its way through time, as the plain stepper keeps it. */
export interface Way {
  x: Float64Array;
  charges: Float64Array;
  rates: Float64Array;
  points: readonly [Float64Array, Float64Array];
  earlierCharges: readonly [Float64Array, Float64Array];
  swing: Float64Array;
  late: Float64Array;
}

export interface StepsRequest {
  /** Right-hand side that stays, by row, and the rows where there is one. */
  rest: Float64Array;
  restRows: ReadonlySet<number>;
  /** What changes from step to step. */
  inputs: SteppedCircuit['inputs'];
  /** Unknowns written down after each step. */
  outputs: readonly number[];
  size: SteppedCircuit['size'];
  /** By default for figures. */
  exactness?: Exactness;
  /** Length of the first steps, seconds: the order of pivots is made for it. */
  seconds: number;
}

interface Exports {
  board(): void;
  advance(steps: number): void;
}

/**
 * Compiled trapezoidal steps of a circuit, in memory of their own. After construction nothing is
 * allocated. `enter` takes over where the plain stepper is, `leave` gives it back.
 */
export class CompiledSteps {
  static readonly most = MOST_STEPS;
  /** Numbers for each step, step by step; and what was written down. */
  readonly inputs: Float64Array;
  readonly outputs: Float64Array;
  private readonly run: Exports;
  private readonly doubles: Float64Array;
  private readonly whole: Int32Array;
  private readonly evenNets: number;
  private lawsRevision = -1;

  private constructor(
    private readonly equations: LargeSignalEquations,
    private readonly circuit: SteppedCircuit,
    private readonly elements: readonly (readonly [number, number])[],
    private readonly rest: Float64Array,
    /** Capacitances of devices that are held, by slot. */
    private readonly held: Float64Array | undefined,
    private readonly kernel: StepKernel,
    module: WebAssembly.Module,
  ) {
    const { layout, memory: bytes } = kernel;
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / 65536) });
    this.doubles = new Float64Array(memory.buffer);
    this.whole = new Int32Array(memory.buffer);
    const view = (at: number, length: number) => new Float64Array(memory.buffer, at, length);
    this.inputs = view(layout.inputs, MOST_STEPS * circuit.inputs.length);
    this.outputs = view(layout.outputs, MOST_STEPS * circuit.outputs.length);
    this.evenNets = even(circuit.nets);
    this.run = new WebAssembly.Instance(module, { env: { memory } }).exports as unknown as Exports;
  }

  /** Undefined where WebAssembly is missing or not allowed, or nothing orders the pivots. */
  static of(
    equations: LargeSignalEquations,
    x: Float64Array,
    { rest, restRows, inputs, outputs, size, exactness = EXACT, seconds }: StepsRequest,
  ): CompiledSteps | undefined {
    if (equations.size > MOST_UNKNOWNS) return undefined;
    const { pattern, system } = equations;
    const whole = lawsIn(equations.values);
    const laws = exactness.held ? whole.map(withoutCharges) : whole;
    const devices = equations.values.elements.map((element, i) => install(element, laws[i]));
    const marks = (...lists: readonly Int32Array[]) => {
      const marked = new Uint8Array(pattern.rows.length);
      for (const list of lists) for (const slot of list) marked[slot] = 1;
      return marked;
    };
    equations.evaluate(x);
    const { conductances, capacitances } = equations;
    const held = exactness.held ? capacitances.map((c, slot) => c - pattern.c[slot]) : undefined;
    const [resistive, linear] = [equations.resistiveSlots, equations.reactiveSlots];
    const reactive = held
      ? Int32Array.from([...linear, ...Array.from(held.keys()).filter((slot) => held[slot] !== 0)])
      : linear;
    const stamped = marks(resistive, reactive);
    const nets = system.unknowns.filter((u) => u.kind === 'net').length;
    try {
      const wanted = new Set([...Array(nets).keys(), ...outputs]);
      const sample = conductances.map((g, slot) => g + (2 / seconds) * capacitances[slot]);
      const circuit: SteppedCircuit = {
        pattern,
        resistive: marks(resistive),
        reactive: marks(reactive),
        nets,
        pairs: inPairs(devices),
        order: stepOrder(pattern, stamped, devices, wanted, sample),
        restRows,
        inputs,
        outputs,
        size,
        exactness,
      };
      const kernel = stepKernel(circuit, MOST_STEPS);
      const module = compiled(kernel.bytes);
      if (!module) return undefined;
      const elements = circuit.pairs.map(
        ([a, b]) => [devices.indexOf(a), devices.indexOf(b)] as const,
      );
      return new CompiledSteps(equations, circuit, elements, rest, held, kernel, module);
    } catch (error) {
      if (error instanceof SingularPlan || error instanceof RangeError) return undefined;
      throw error;
    }
  }

  /**
   * Steps of this length from now on, with the present values of the circuit's parts.
   *
   * @returns whether the order of pivots serves them
   */
  prepare(seconds: number): boolean {
    const { doubles, kernel, equations } = this;
    const { layout } = kernel;
    const { g, c } = equations.pattern;
    const pace = 2 / seconds;
    for (let slot = 0; slot < g.length; slot++) {
      const storage = this.held ? c[slot] + this.held[slot] : c[slot];
      doubles[layout.matrix / 8 + slot] = g[slot] + pace * storage;
      doubles[layout.conductance / 8 + slot] = g[slot];
      doubles[layout.storage / 8 + slot] = storage;
    }
    doubles.fill(pace, layout.pace / 8, layout.pace / 8 + 2);
    doubles.set(this.rest, layout.rest / 8);
    this.takeLaws();
    this.run.board();
    return doubles[layout.doubt / 8] <= SOUND_CHANGES;
  }

  /** Constants of the devices, where they have changed. */
  private takeLaws(): void {
    const { doubles, elements, equations } = this;
    const { values } = equations;
    if (this.lawsRevision === values.revision) return;
    this.lawsRevision = values.revision;
    const laws = lawsIn(values);
    elements.forEach((pair, p) =>
      pair.forEach((element, lane) => {
        const { constants, drops } = laws[element];
        const at = this.kernel.layout.constants[p] / 8 + lane;
        constants.forEach((value, i) => (doubles[at + 2 * i] = value));
        drops.forEach(({ bend }, j) => (doubles[at + 2 * (constants.length + j)] = 1 / bend));
      }),
    );
  }

  /** Take over from the plain stepper. */
  enter({ x, charges, rates, points, earlierCharges, swing, late }: Way): void {
    const { doubles, kernel, circuit } = this;
    const { layout } = kernel;
    doubles.set(this.held ? this.heldCharges(x) : charges, layout.charges / 8);
    earlierCharges.forEach((list, i) => doubles.set(list, layout.earlierCharges[i] / 8));
    doubles.set(rates, layout.rates / 8);
    [x, points[0], points[1], x].forEach((point, i) => {
      doubles.set(point, layout.points[i] / 8);
      this.whole[layout.order / 4 + i] = layout.points[i];
    });
    for (let i = 0; i < this.evenNets; i++) {
      doubles[layout.swing / 8 + i] = i < circuit.nets ? swing[i] : 0;
      doubles[layout.late / 8 + i] = i < circuit.nets ? late[i] : 0;
    }
  }

  /** Charges as far as capacitances are held. */
  private heldCharges(x: Float64Array): Float64Array {
    const { doubles, kernel, equations } = this;
    const { rows, columns } = equations.pattern;
    const charges = new Float64Array(equations.size);
    rows.forEach((row, slot) => {
      charges[row] += doubles[kernel.layout.storage / 8 + slot] * x[columns[slot]];
    });
    return charges;
  }

  /**
   * @param weights of the last three points in the parabola that leads to the next, newest first
   * @param error of a step's charges, as a part of their distance from it, over the tolerance
   */
  follow(seconds: number, weights: readonly number[], error: number): void {
    const { doubles, kernel } = this;
    const { parabola, strictness } = kernel.layout;
    weights.forEach((w, i) => doubles.fill(w, parabola / 8 + 2 * i, parabola / 8 + 2 * i + 2));
    doubles[strictness / 8] = (2 / seconds) * error;
  }

  /** Up to so many steps; how many were taken before one that did not settle or erred too much. */
  advance(steps: number): number {
    this.run.advance(steps);
    return steps - this.whole[this.kernel.layout.left / 4];
  }

  /** Why the first step that was not taken was not. */
  get refusal(): Refusal {
    return this.whole[this.kernel.layout.refusal / 4];
  }

  /** Give back to the plain stepper where the circuit is. */
  leave({ x, charges, rates, points, earlierCharges, swing, late }: Way): void {
    const { doubles, kernel, circuit, equations, whole } = this;
    const { layout } = kernel;
    const { looseRows } = circuit.order;
    [x, points[0], points[1]].forEach((point, i) => {
      const at = whole[layout.order / 4 + i] / 8;
      for (let u = 0; u < point.length; u++) point[u] = doubles[at + u];
    });
    equations.evaluate(x);
    for (let row = 0; row < charges.length; row++) {
      // A row that was left out says what a current is that nothing else depends on.
      const loose = this.held !== undefined || looseRows.has(row);
      // Where charges were held, the whole ones are those of the voltages.
      charges[row] = loose ? equations.charges[row] : doubles[layout.charges / 8 + row];
      rates[row] = looseRows.has(row) ? 0 : doubles[layout.rates / 8 + row];
      earlierCharges.forEach((list, i) => {
        if (!loose) list[row] = doubles[layout.earlierCharges[i] / 8 + row];
      });
    }
    for (let i = 0; i < circuit.nets; i++) {
      // Those that cannot err are not followed in the kernel.
      const size = Math.abs(x[i]);
      swing[i] = Math.max(size, doubles[layout.swing / 8 + i]);
      late[i] = Math.max(size, doubles[layout.late / 8 + i]);
    }
  }
}
