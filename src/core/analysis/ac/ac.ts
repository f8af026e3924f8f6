import type { Entry, System } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import type { Slope } from '@/core/circuit/stamper';
import { Values, valuesOfAlike } from '@/core/circuit/values';
import { ReedError } from '@/core/errors';
import type { ExactMatrix } from '../linear/exact-matrix';
import { fillSlots, type SlotMatrix } from '../linear/matrix';
import { netUnknown } from '../net-unknown';
import { emptyTrace, type ComplexTrace } from './complex';
import { PointSolution } from './point-solution';
import { Prepared, type Linearised } from './prepared';
import type { Aim } from './scrutiny';
import { SmallSignalSolver, type TransferBatch } from './solver';

export type { TransferBatch } from './solver';

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
  private readonly solver: SmallSignalSolver;

  /**
   * @param source a circuit; or another analysis, whose preparation is shared, with values of its own
   * @param negligible what a solution may lose, as a part of itself; all digits are kept without it. Who
   *   compares with what was measured needs few, and is answered sooner
   * @throws ReedError `circuit` for wiring that has no small-signal solution
   */
  constructor(source: Circuit | AcAnalysis, signal?: AbortSignal, negligible?: number) {
    const other = source instanceof AcAnalysis ? source : undefined;
    this.prepared =
      source instanceof AcAnalysis ? source.prepared : new Prepared(source, signal, negligible);
    const { system, matrix } = this.prepared;
    this.own = new Values(system, other?.own);
    this.devices = other?.devices ?? this.prepared.linearised;
    const { g, c } = other?.matrix ?? matrix;
    this.matrix = { ...matrix, g: g.slice(), c: c.slice() };
    this.solver = new SmallSignalSolver(this.prepared, this.matrix, this);
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
    return this.own.slopes();
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
    fillSlots(this.matrix, this.system.entries, this.devices?.entries ?? [], this.values);
    this.solver.moved();
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
    return netUnknown(this.system, net);
  }

  /**
   * @throws ReedError `range` for a frequency that is negative or no number, `circuit` for an
   * unknown net or part, `singular` where the equations have no unique solution
   */
  solve(request: AcRequest): AcResult {
    const frequenciesHz = Float64Array.from(request.frequenciesHz);
    const unknowns = [
      ...request.probes.map((name) => netUnknown(this.system, name)),
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
   * @param into filled and returned; without it a new trace
   * @throws ReedError as `solve`
   */
  voltage(
    net: string,
    frequenciesHz: Float64Array,
    into = emptyTrace(frequenciesHz.length),
  ): ComplexTrace {
    const unknown = netUnknown(this.system, net);
    if (unknown >= 0) this.solver.fill([into], frequenciesHz, [unknown]);
    return into;
  }

  /**
   * The voltages of several nets from one solve, in their order.
   *
   * @throws ReedError as `solve`
   */
  voltages(nets: readonly string[], frequenciesHz: Float64Array): ComplexTrace[] {
    return this.tracesOf(
      nets.map((net) => netUnknown(this.system, net)),
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
    const traces = this.solver.traces(frequenciesHz, wanted, signal);
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
    return new PointSolution(this, this.solver.single(Float64Array.of(hz)), 2 * Math.PI * hz);
  }

  /** All terms of the present equations: of the parts, and of the devices' slopes. */
  get entries(): readonly Entry[] {
    return this.devices ? [...this.system.entries, ...this.devices.entries] : this.system.entries;
  }

  /**
   * The transposed solution for one unknown at each frequency, with the direct one beside it, a
   * batch at a time.
   *
   * @throws ReedError as `solve`
   */
  eachTransfer(
    unknown: number,
    frequenciesHz: Float64Array,
    visit: (batch: TransferBatch) => void,
  ): void {
    this.solver.eachTransfer(unknown, frequenciesHz, visit);
  }

  /** The present equations in two doubles. */
  exactMatrix(): ExactMatrix {
    return this.solver.exactMatrix();
  }

  /**
   * All unknowns at one frequency, to the digits that the values give.
   *
   * @param omega radians a second
   * @throws ReedError `singular` where the equations have no unique solution
   */
  solveCarefully(omega: number, aim: Aim = { wanted: 'all' }): ComplexTrace {
    return this.solver.carefully(omega, aim);
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

/** The response of a circuit at the given frequencies, in one call. */
export function acResponse(circuit: Circuit, request: AcRequest): AcResult {
  return new AcAnalysis(circuit, request.signal).solve(request);
}
