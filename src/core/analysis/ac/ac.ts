import { inWords } from '@/core/quantity/format';
import { ReedError, stopIfAsked } from '@/core/errors';
import type { Entry, System } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import type { Slope } from '@/core/circuit/stamper';
import { Values, valuesOfAlike } from '@/core/circuit/values';
import { ExactMatrix } from '../linear/exact-matrix';
import { FrequencySolver } from '../linear/frequency-solver';
import { fillSlots, type SlotMatrix } from '../linear/matrix';
import { singularError } from '../linear/singular';
import type { ComplexTrace } from './complex';
import { PointSolution } from './point-solution';
import { keyOf, Prepared, type Linearised } from './prepared';
import { Scrutiny, type Aim } from './scrutiny';

export interface AcResult {
  frequenciesHz: Float64Array;
  /** Net voltages by net name. */
  probes: Record<string, ComplexTrace>;
  /** Branch currents by part id, positive from the first terminal through the part. */
  currents: Record<string, ComplexTrace>;
}

export interface AcRequest {
  frequenciesHz: ArrayLike<number>;
  /** Nets whose voltage is asked for. */
  probes: readonly string[];
  /** Parts with a branch current (sources, coils, amplifiers) whose current is asked for. */
  currents?: readonly string[];
  signal?: AbortSignal;
}

/** The direct solution x and the transposed one y at `count` neighbouring frequencies of a question. */
export interface TransferBatch {
  /** Index of the first of them. */
  from: number;
  count: number;
  /** Of the whole question, radians a second. */
  omega: Float64Array;
  /** Entry `row` at the k-th frequency of the batch is at `row * width + k`. */
  width: number;
  /** y[row] is what a unit put into equation `row` does to the unknown that was asked for. */
  yRe: Float64Array;
  yIm: Float64Array;
  xRe: Float64Array;
  xIm: Float64Array;
}

/**
 * The small-signal response of one circuit, prepared once and then asked at any frequencies.
 * Values of its parameters may be changed between questions; the plan stays.
 */
export class AcAnalysis {
  readonly matrix: SlotMatrix;
  private readonly prepared: Prepared;
  private readonly own: Values;
  private devices: Linearised | undefined;
  /** Whether they are shared with whom this was made from. */
  private shared = true;
  /** For all unknowns, with room for the transposed solution beside it. */
  private full: FrequencySolver | undefined;
  private transposed: ComplexTrace | undefined;
  /** For all unknowns at a single frequency. */
  private narrow: FrequencySolver | undefined;
  /** The equations in two doubles, as they stood at a revision of the matrix. */
  private exact: { revision: number; matrix: ExactMatrix } | undefined;
  private readonly scrutiny: Scrutiny;
  /** By what is asked for, then by width. */
  private readonly solvers = new Map<number | string, Map<number, FrequencySolver>>();

  /**
   * @param source a circuit; or another analysis, whose preparation is shared, with values of its own
   * @throws ReedError `circuit` for wiring that has no small-signal solution
   */
  constructor(source: Circuit | AcAnalysis, signal?: AbortSignal) {
    const other = source instanceof AcAnalysis ? source : undefined;
    this.prepared = source instanceof AcAnalysis ? source.prepared : new Prepared(source, signal);
    const { system, matrix } = this.prepared;
    this.own = new Values(system, other?.own);
    this.devices = other?.devices ?? this.prepared.linearised;
    const { g, c } = other?.matrix ?? matrix;
    this.matrix = { ...matrix, g: g.slice(), c: c.slice() };
    this.scrutiny = new Scrutiny({
      matrix: this.matrix,
      rhs: this.rhs,
      exact: () => this.exactMatrix(),
      narrow: () => this.narrow,
    });
  }

  get system(): System {
    return this.prepared.system;
  }

  /** The devices about their operating point; absent for a linear circuit. */
  get linearised(): Linearised | undefined {
    return this.devices;
  }

  /** Right-hand side of the small-signal equations. */
  get rhs(): ComplexTrace {
    return this.prepared.rhs;
  }

  /**
   * Present values by parameter. Write independent ones here, then call `update`; derived ones
   * follow.
   */
  get values(): Float64Array {
    return this.own.all;
  }

  /** Slopes of the derived values by the independent ones, for the present values. */
  get slopes(): ReadonlyMap<number, readonly Slope[]> {
    return this.own.slopes;
  }

  /**
   * Take over changed `values`. Devices move to the operating point of these, looked for from the
   * last one.
   *
   * @throws ReedError `convergence` where there is no such point
   */
  update(): void {
    this.own.refresh();
    if (this.devices && this.shared) this.devices = this.devices.with(this.own);
    else this.devices?.update();
    this.shared = false;
    fillSlots(this.matrix, this.entries, this.values);
    this.scrutiny.moved(this.values);
  }

  /**
   * Take over the values of a circuit of the same structure.
   *
   * @returns false where it needs equations of its own; nothing has changed then
   * @throws ReedError as `update`
   */
  take(circuit: Circuit): boolean {
    const values = valuesOfAlike(this.system, circuit);
    if (!values) return false;
    this.system.parameters.forEach(({ by }, i) => {
      if (!by) this.values[i] = values[i];
    });
    this.update();
    return true;
  }

  /** The unknown of a net; -1 for ground. */
  unknownOf(net: string): number {
    return this.netUnknown(net);
  }

  /**
   * @throws ReedError `range` for a frequency that is negative or no number, `circuit` for an
   * unknown net or part, `singular` where the equations have no unique solution
   */
  solve(request: AcRequest): AcResult {
    const frequenciesHz = Float64Array.from(request.frequenciesHz);
    const unknowns = [
      ...request.probes.map((name) => this.netUnknown(name)),
      ...(request.currents ?? []).map((id) => this.branchUnknown(id)),
    ];
    const traces = this.tracesOf(unknowns, frequenciesHz, request.signal);
    const named = (names: readonly string[], from: number) =>
      Object.fromEntries(names.map((name, i) => [name, traces[from + i]]));
    return {
      frequenciesHz,
      probes: named(request.probes, 0),
      currents: named(request.currents ?? [], request.probes.length),
    };
  }

  /**
   * The voltage of one net: `solve` for the question that searches ask thousands of times.
   *
   * @throws ReedError as `solve`
   */
  voltage(net: string, frequenciesHz: Float64Array): ComplexTrace {
    const unknown = this.netUnknown(net);
    return unknown < 0 ? emptyTrace(frequenciesHz.length) : this.run(frequenciesHz, [unknown])[0];
  }

  /**
   * The voltages of several nets from one solve, in their order.
   *
   * @throws ReedError as `solve`
   */
  voltages(nets: readonly string[], frequenciesHz: Float64Array): ComplexTrace[] {
    return this.tracesOf(
      nets.map((net) => this.netUnknown(net)),
      frequenciesHz,
    );
  }

  /** A trace for each unknown: what is asked for twice is found once, and ground is at zero. */
  private tracesOf(
    unknowns: readonly number[],
    frequenciesHz: Float64Array,
    signal?: AbortSignal,
  ): ComplexTrace[] {
    const wanted = [...new Set(unknowns)].filter((unknown) => unknown >= 0);
    const traces = this.run(frequenciesHz, wanted, signal);
    return unknowns.map(
      (unknown) => traces[wanted.indexOf(unknown)] ?? emptyTrace(frequenciesHz.length),
    );
  }

  /**
   * Everything at one frequency.
   *
   * @throws ReedError as `solve`
   */
  at(hz: number): PointSolution {
    const omega = angular(Float64Array.of(hz));
    this.makeNarrow(omega);
    return new PointSolution(this, this.narrow, omega[0]);
  }

  /** All terms of the present equations: of the parts, and of the devices' slopes. */
  get entries(): readonly Entry[] {
    return this.devices ? [...this.system.entries, ...this.devices.entries] : this.system.entries;
  }

  /** The traces of the wanted unknowns, in their order. */
  private run(
    frequenciesHz: Float64Array,
    wanted: readonly number[],
    signal?: AbortSignal,
  ): ComplexTrace[] {
    const total = frequenciesHz.length;
    const omega = angular(frequenciesHz);
    const traces = wanted.map(() => emptyTrace(total));
    if (wanted.length === 0 || total === 0) return traces;
    this.makeNarrow(omega);
    if (!this.narrow) {
      omega.forEach((w, k) => this.put(this.solveCarefully(w, { wanted }), k, wanted, traces));
      return traces;
    }
    const key = String(keyOf(wanted));
    const solver = this.solverFor(omega, wanted);
    const { width, xRe, xIm, doubt } = solver;
    for (let from = 0; from < total; from += width) {
      stopIfAsked(signal);
      const count = Math.min(width, total - from);
      solver.solve(omega, from, count);
      for (let i = 0; i < wanted.length; i++) {
        const { re, im } = traces[i];
        const at = wanted[i] * width;
        for (let k = 0; k < count; k++) {
          re[from + k] = xRe[at + k];
          im[from + k] = xIm[at + k];
        }
      }
      for (let k = 0; k < count; k++) {
        const w = omega[from + k];
        if (this.scrutiny.trusts(w, doubt[k], { wanted }, key)) continue;
        this.put(this.solveCarefully(w, { wanted }), from + k, wanted, traces);
      }
    }
    return traces;
  }

  private put(
    x: ComplexTrace,
    at: number,
    wanted: readonly number[],
    traces: readonly ComplexTrace[],
  ): void {
    wanted.forEach((unknown, i) => {
      traces[i].re[at] = x.re[unknown];
      traces[i].im[at] = x.im[unknown];
    });
  }

  /**
   * The transposed solution for one unknown at each frequency, with the direct one beside it, a
   * batch at a time.
   */
  eachTransfer(
    unknown: number,
    frequenciesHz: Float64Array,
    visit: (batch: TransferBatch) => void,
  ): void {
    const omega = angular(frequenciesHz);
    // Nothing is asked, and a plan made for no frequency would be a bad one.
    if (omega.length === 0) return;
    this.makeNarrow(omega);
    const solver = this.narrow && (this.full ??= this.makeSolver('all', WIDEST));
    const width = solver?.width ?? WIDEST;
    const x = solver ? { re: solver.xRe, im: solver.xIm } : emptyTrace(this.matrix.size * width);
    const y = (this.transposed ??= emptyTrace(this.matrix.size * width));
    const unit = emptyTrace(this.matrix.size);
    unit.re[unknown] = 1;
    const direct: Aim = { wanted: [unknown] };
    const back: Aim = { wanted: 'all', rhs: unit, transposed: true };
    for (let from = 0; from < omega.length; from += width) {
      const count = Math.min(width, omega.length - from);
      solver?.solve(omega, from, count);
      solver?.solveTransposed(unknown, count, y.re, y.im);
      for (let k = 0; k < count; k++) {
        const w = omega[from + k];
        if (
          solver &&
          this.scrutiny.trusts(w, solver.doubt[k], direct, `${unknown}`) &&
          this.scrutiny.trusts(w, solver.doubt[k], back, `to ${unknown}`)
        )
          continue;
        putLane(this.solveCarefully(w, direct), x, k, width);
        putLane(this.solveCarefully(w, back), y, k, width);
      }
      visit({ from, count, omega, width, yRe: y.re, yIm: y.im, xRe: x.re, xIm: x.im });
    }
  }

  /** A planned solver for single frequencies, if there is an order of pivots that serves. */
  private makeNarrow(omega: Float64Array): void {
    if (this.narrow || this.prepared.planless) return;
    if (this.prepared.plansFor(omega)) this.narrow = this.makeSolver('all', NARROWEST);
  }

  /** The present equations in two doubles. */
  exactMatrix(): ExactMatrix {
    const { revision } = this.matrix;
    if (this.exact?.revision !== revision)
      this.exact = { revision, matrix: new ExactMatrix(this.matrix, this.entries, this.values) };
    return this.exact.matrix;
  }

  private solverFor(omega: Float64Array, unknowns: readonly number[]): FrequencySolver {
    // Questions for a few frequencies get a narrow solver: its arrays are a fraction of the size.
    const width = omega.length > 8 ? WIDEST : omega.length > 4 ? 8 : 4;
    const key = keyOf(unknowns);
    let widths = this.solvers.get(key);
    if (!widths) this.solvers.set(key, (widths = new Map<number, FrequencySolver>()));
    let solver = widths.get(width);
    if (!solver) widths.set(width, (solver = this.makeSolver(unknowns, width)));
    return solver;
  }

  private makeSolver(wanted: readonly number[] | 'all', width: number): FrequencySolver {
    const { plan, program } = this.prepared.programFor(wanted);
    return new FrequencySolver(this.matrix, plan, { rhs: this.rhs, program, width });
  }

  /**
   * All unknowns at one frequency, to the digits that the values give.
   *
   * @throws ReedError `singular` where the equations have no unique solution
   */
  solveCarefully(omega: number, aim: Aim = { wanted: 'all' }): ComplexTrace {
    const x = this.scrutiny.solve(omega, aim);
    if ('unknown' in x) {
      const at = inWords(omega / (2 * Math.PI), 'hertz');
      throw singularError(this.system, x.unknown, x.equation, ` at ${at}`);
    }
    return x;
  }

  private netUnknown(name: string): number {
    if (name === this.system.circuit.ground) return -1;
    const index = this.system.netIndex.get(name);
    if (index !== undefined) return index;
    throw new ReedError(
      'circuit',
      `The circuit has no net “${name}” to probe. Its nets are ${[...this.system.netIndex.keys()].join(', ')}.`,
      { net: name },
    );
  }

  private branchUnknown(id: string): number {
    const index = this.system.branchIndex.get(id);
    if (index !== undefined) return index;
    throw new ReedError(
      'circuit',
      `Part “${id}” has no current of its own to read: ask a source, a coil or an amplifier.`,
      { part: id },
    );
  }
}

/** Frequencies solved side by side, at most and at least. */
const WIDEST = 32;
const NARROWEST = 1;

const emptyTrace = (length: number): ComplexTrace => ({
  re: new Float64Array(length),
  im: new Float64Array(length),
});

/** Set the values of one frequency of a batch. */
function putLane(from: ComplexTrace, to: ComplexTrace, k: number, width: number): void {
  for (let i = 0; i < from.re.length; i++) {
    to.re[i * width + k] = from.re[i];
    to.im[i * width + k] = from.im[i];
  }
}

/** @throws ReedError `range` for a frequency that is negative or no number */
function angular(frequenciesHz: Float64Array): Float64Array {
  const omega = new Float64Array(frequenciesHz.length);
  for (let k = 0; k < omega.length; k++) {
    const hz = frequenciesHz[k];
    if (!(hz >= 0 && hz < Infinity))
      throw new ReedError('range', `${hz} is not a frequency: give hertz, zero or more.`);
    omega[k] = 2 * Math.PI * hz;
  }
  return omega;
}

/** The response of a circuit at the given frequencies, in one call. */
export function acResponse(circuit: Circuit, request: AcRequest): AcResult {
  return new AcAnalysis(circuit, request.signal).solve(request);
}
