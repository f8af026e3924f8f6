import { inWords } from '@/core/quantity/format';
import { ReedError, stopIfAsked } from '@/core/errors';
import { checkWiring } from '@/core/circuit/check';
import { compile, type Entry, type System } from '@/core/circuit/compile';
import type { ElementValues, NonlinearElement } from '@/core/circuit/stamper';
import type { Circuit } from '@/core/circuit/schema';
import { OperatingPointSearch } from '../dc/operating-point';
import type { LargeSignalEquations } from '../large-signal/equations';
import { solveDense } from '../linear/dense';
import { FrequencySolver } from '../linear/frequency-solver';
import { fillSlots, slotMatrix, type SlotMatrix } from '../linear/matrix';
import { planElimination, SingularPlan, type Plan } from '../linear/plan';
import { singularError } from '../linear/singular';

/** A complex response: `re[k]`, `im[k]` at frequency k, volts (or amperes). */
export interface ComplexTrace {
  re: Float64Array;
  im: Float64Array;
}

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

/** So few frequencies of a circuit that was never asked before are solved one by one. */
const FEW = 2;

/**
 * The small-signal response of one circuit, prepared once and then asked at any frequencies.
 * Values of its parameters may be changed between questions; the plan stays.
 */
export class AcAnalysis {
  readonly system: System;
  /** Present parameter values; write here, then call `update`. */
  readonly values: Float64Array;
  /** Right-hand side of the small-signal equations. */
  readonly rhs: ComplexTrace;
  /** The devices about their operating point; absent for a linear circuit. */
  readonly linearised: Linearised | undefined;
  readonly matrix: SlotMatrix;
  private readonly entries: readonly Entry[];
  private plan: Plan | undefined;
  private readonly solvers = new Map<string, FrequencySolver>();

  /** @throws ReedError `circuit` for wiring that has no small-signal solution */
  constructor(circuit: Circuit, signal?: AbortSignal) {
    checkWiring(circuit, 'ac');
    this.system = compile(circuit);
    this.linearised =
      this.system.elements.length > 0 ? linearise(circuit, this.system, signal) : undefined;
    const extra = this.linearised?.entries ?? [];
    this.entries = [...this.system.entries, ...extra];
    this.matrix = slotMatrix(this.system, extra);
    this.values = Float64Array.from(this.system.parameters, (p) => p.value);
    this.rhs = acSources(this.system);
  }

  /** Take over changed `values`. Devices stay at the operating point of the nominal values. */
  update(): void {
    fillSlots(this.matrix, this.entries, this.values);
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
    const omega = frequenciesHz.map((hz) => {
      if (!(hz >= 0) || !Number.isFinite(hz))
        throw new ReedError('range', `${hz} is not a frequency: give hertz, zero or more.`);
      return 2 * Math.PI * hz;
    });
    const probes = request.probes.map((name) => ({ name, unknown: this.netUnknown(name) }));
    const currents = (request.currents ?? []).map((id) => ({
      name: id,
      unknown: this.branchUnknown(id),
    }));
    const trace = (): ComplexTrace => ({
      re: new Float64Array(omega.length),
      im: new Float64Array(omega.length),
    });
    const wanted = [...probes, ...currents]
      .filter((w) => w.unknown >= 0)
      .map((w) => ({ ...w, trace: trace() }));
    if (wanted.length > 0 && omega.length > 0) this.run(omega, wanted, request.signal);
    const found = new Map(wanted.map((w) => [w.unknown, w.trace]));
    const named = (list: { name: string; unknown: number }[]) =>
      Object.fromEntries(list.map(({ name, unknown }) => [name, found.get(unknown) ?? trace()]));
    return { frequenciesHz, probes: named(probes), currents: named(currents) };
  }

  private run(
    omega: Float64Array,
    wanted: { unknown: number; trace: ComplexTrace }[],
    signal?: AbortSignal,
  ): void {
    // For a frequency or two a plan is not worth its making.
    if (!this.plan && omega.length <= FEW) {
      omega.forEach((w, k) => this.put(this.solveCarefully(w), k, wanted));
      return;
    }
    const solver = this.solverFor(
      omega,
      wanted.map((w) => w.unknown),
    );
    const { width } = solver;
    for (let from = 0; from < omega.length; from += width) {
      stopIfAsked(signal);
      const count = Math.min(width, omega.length - from);
      const sound = solver.solve(omega, from, count);
      for (const { unknown, trace } of wanted) {
        trace.re.set(solver.xRe.subarray(unknown * width, unknown * width + count), from);
        trace.im.set(solver.xIm.subarray(unknown * width, unknown * width + count), from);
      }
      if (sound) continue;
      for (let k = 0; k < count; k++) {
        if (solver.troubled[k] === 0) continue;
        this.put(this.solveCarefully(omega[from + k]), from + k, wanted);
      }
    }
  }

  private put(x: ComplexTrace, at: number, wanted: { unknown: number; trace: ComplexTrace }[]) {
    for (const { unknown, trace } of wanted) {
      trace.re[at] = x.re[unknown];
      trace.im[at] = x.im[unknown];
    }
  }

  /**
   * The transposed solution for one unknown at each frequency: y[row] is what a unit put into
   * equation `row` does to it. `visit` is told the index of the frequency, and finds y[row] at
   * yRe[row * stride + k]; with `x` it also has the direct solution laid out alike.
   */
  eachTransfer(
    unknown: number,
    frequenciesHz: Float64Array,
    visit: (
      at: number,
      yRe: Float64Array,
      yIm: Float64Array,
      stride: number,
      k: number,
      x: FrequencySolver,
    ) => void,
  ): void {
    const omega = frequenciesHz.map((hz) => 2 * Math.PI * hz);
    this.plan ??= this.makePlan(omega);
    const solver = (this.full ??= new FrequencySolver(this.matrix, this.plan, {
      rhs: this.rhs,
      wanted: 'all',
    }));
    const { width } = solver;
    const yRe = new Float64Array(this.matrix.size * width);
    const yIm = new Float64Array(this.matrix.size * width);
    for (let from = 0; from < omega.length; from += width) {
      const count = Math.min(width, omega.length - from);
      if (!solver.solve(omega, from, count)) {
        const bad = solver.troubled.findIndex((t) => t !== 0);
        throw singularError(
          this.system,
          unknown,
          unknown,
          ` at ${inWords(frequenciesHz[from + bad], 'hertz')}`,
        );
      }
      solver.solveTransposed(unknown, count, yRe, yIm);
      for (let k = 0; k < count; k++) visit(from + k, yRe, yIm, width, k, solver);
    }
  }

  private full: FrequencySolver | undefined;

  private solverFor(omega: Float64Array, unknowns: number[]): FrequencySolver {
    this.plan ??= this.makePlan(omega);
    // Questions for a frequency or two get a narrow solver: its arrays are an eighth the size.
    const width = omega.length >= 16 ? 32 : 4;
    const key = `${width}: ${unknowns.join(' ')}`;
    let solver = this.solvers.get(key);
    if (!solver) {
      solver = new FrequencySolver(this.matrix, this.plan, {
        rhs: this.rhs,
        wanted: unknowns,
        width,
      });
      this.solvers.set(key, solver);
    }
    return solver;
  }

  /** Pivots are chosen to be safe at the ends and the middle of the asked range. */
  private makePlan(omega: Float64Array): Plan {
    const positive = omega.filter((w) => w > 0);
    const low = positive.length > 0 ? positive.reduce((a, b) => Math.min(a, b)) : 1;
    const high = positive.length > 0 ? positive.reduce((a, b) => Math.max(a, b)) : 1;
    const at = [low, Math.sqrt(low * high), high];
    const samples = at.map((w) => ({ re: this.matrix.g, im: this.matrix.c.map((c) => c * w) }));
    try {
      return planElimination(this.matrix, samples);
    } catch (error) {
      if (error instanceof SingularPlan)
        throw singularError(this.system, error.unknown, error.equation, '');
      throw error;
    }
  }

  private solveCarefully(omega: number): ComplexTrace {
    const n = this.matrix.size;
    const re = new Float64Array(n * n);
    const im = new Float64Array(n * n);
    this.matrix.rows.forEach((row, slot) => {
      const at = row * n + this.matrix.columns[slot];
      re[at] = this.matrix.g[slot];
      im[at] = this.matrix.c[slot] * omega;
    });
    const x = solveDense(n, re, im, this.rhs.re, this.rhs.im);
    if ('singularColumn' in x) {
      const at = inWords(omega / (2 * Math.PI), 'hertz');
      throw singularError(this.system, x.singularColumn, x.singularColumn, ` at ${at}`);
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

/** Devices replaced by their slopes at the operating point. */
export interface Linearised {
  entries: Entry[];
  elements: { element: NonlinearElement; values: ElementValues }[];
  /** The operating point, by unknown, and the equations it solves. */
  x: Float64Array;
  equations: LargeSignalEquations;
}

function linearise(circuit: Circuit, system: System, signal?: AbortSignal): Linearised {
  checkWiring(circuit, 'dc');
  const search = new OperatingPointSearch(system, signal);
  const x = search.find();
  return {
    entries: search.equations.smallSignalEntries(),
    elements: search.equations.elementValues(),
    x,
    equations: search.equations,
  };
}

/** The right-hand side of the small-signal equations: every source's phasor on its rows. */
export function acSources(system: System): ComplexTrace {
  const rhs = {
    re: new Float64Array(system.unknowns.length),
    im: new Float64Array(system.unknowns.length),
  };
  for (const { row, sign, acMagnitude, acDegrees } of system.sources) {
    const radians = (acDegrees * Math.PI) / 180;
    rhs.re[row] += sign * acMagnitude * Math.cos(radians);
    rhs.im[row] += sign * acMagnitude * Math.sin(radians);
  }
  return rhs;
}

/** The response of a circuit at the given frequencies, in one call. */
export function acResponse(circuit: Circuit, request: AcRequest): AcResult {
  return new AcAnalysis(circuit, request.signal).solve(request);
}
