import { ReedError, stopIfAsked } from '@/core/errors';
import { deviceOf } from '@/core/circuit/devices';
import { checkWiring } from '@/core/circuit/check';
import { compile, type System } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { constantOf } from '@/core/circuit/stamper';
import { valueAtRest } from '@/core/circuit/waveform';
import { Values } from '@/core/circuit/values';
import { LargeSignalEquations } from '../large-signal/equations';
import { SingularPlan } from '../linear/plan';
import { RealSolver } from '../linear/real-solver';
import { singularError } from '../linear/singular';

export interface OperatingPoint {
  /** Volts by net. */
  nodes: Record<string, number>;
  /** Currents of parts that carry one of their own (sources, coils, amplifiers), amperes. */
  currents: Record<string, number>;
  /** Terminal currents of devices, amperes into the device, by part and row. */
  devices: Record<string, number[]>;
  /** Power taken by resistors and devices, watts. */
  power: Record<string, number>;
  /** Newton iterations it took, over all stages of the search. */
  iterations: number;
}

/** A point is found when no voltage moves by more than this part of itself plus a little. */
const RELATIVE = 1e-9;
const ABSOLUTE = 1e-12;
const MOST_ITERATIONS = 120;

/**
 * Finds where a circuit comes to rest: Newton's method with junction limiting; where that fails, the
 * nets are first tied to ground through conductances that are then taken away (gmin stepping), and
 * after that the sources are raised from zero (source stepping)
 * (W. J. McCalla, "Fundamentals of Computer-Aided Circuit Simulation", 1988, chapter 5).
 */
export class OperatingPointSearch {
  readonly equations: LargeSignalEquations;
  iterations = 0;
  private readonly solver: RealSolver;
  private readonly rhs: Float64Array;
  private readonly residual: Float64Array;
  private readonly jacobian: Float64Array;
  private readonly trial: Float64Array;
  private culprit = '';

  constructor(
    readonly system: System,
    private readonly signal?: AbortSignal,
    values = new Values(system),
  ) {
    this.equations = new LargeSignalEquations(system, values);
    this.solver = new RealSolver(this.equations.pattern);
    this.rhs = new Float64Array(this.equations.size);
    this.drive();
    this.residual = new Float64Array(this.equations.size);
    this.jacobian = new Float64Array(this.equations.pattern.rows.length);
    this.trial = new Float64Array(this.equations.size);
  }

  private drive(): void {
    const { all } = this.equations.values;
    this.rhs.fill(0);
    for (const { row, sign, dc, waveform } of this.system.sources)
      this.rhs[row] += sign * (waveform ? valueAtRest(waveform) : constantOf({ dc }, all));
  }

  /** Take over changed values. */
  update(): void {
    this.equations.update();
    this.drive();
  }

  /**
   * @param from where it is likely to be, such as where it was for other values
   * @throws ReedError `convergence` naming the device that would not settle, `singular` naming the net
   */
  find(from?: Float64Array): Float64Array {
    const x = new Float64Array(this.equations.size);
    if (from) {
      x.set(from);
      if (this.newton(x, 0, 1)) return x;
      x.fill(0);
    }
    if (this.newton(x, 0, 1)) return x;
    if (this.gminStepping(x)) return x;
    x.fill(0);
    if (this.sourceStepping(x)) return x;
    throw new ReedError(
      'convergence',
      `No operating point was found: ${this.culprit || 'the circuit'} would not settle. Check its polarity and supply, or give it a resistance in series.`,
      { part: this.culprit },
    );
  }

  private gminStepping(x: Float64Array): boolean {
    x.fill(0);
    let gmin = 1e-2;
    if (!this.newton(x, gmin, 1)) return false;
    let factor = 10;
    while (gmin > 1e-13) {
      const kept = Float64Array.from(x);
      if (this.newton(x, gmin / factor, 1)) {
        gmin /= factor;
        factor = Math.min(10, factor * 1.5);
      } else {
        x.set(kept);
        factor = Math.sqrt(factor);
        if (factor < 1.01) return false;
      }
    }
    return this.newton(x, 0, 1);
  }

  private sourceStepping(x: Float64Array): boolean {
    let level = 0;
    let step = 0.1;
    while (level < 1) {
      const kept = Float64Array.from(x);
      const next = Math.min(1, level + step);
      if (this.newton(x, 0, next)) {
        level = next;
        step = Math.min(0.25, step * 1.5);
      } else {
        x.set(kept);
        step /= 2;
        if (step < 1e-5) return false;
      }
    }
    return true;
  }

  /** Newton iterations from `x`, in place; false when they do not settle. */
  private newton(x: Float64Array, gmin: number, level: number): boolean {
    const { equations, rhs, residual, jacobian, trial, solver } = this;
    trial.set(x);
    for (let pass = 0; pass < MOST_ITERATIONS; pass++) {
      if ((++this.iterations & 7) === 0) stopIfAsked(this.signal);
      const held = equations.evaluate(x, trial);
      jacobian.set(equations.conductances);
      for (let i = 0; i < equations.size; i++) {
        residual[i] = level * rhs[i] - equations.statics[i];
        if (gmin > 0 && equations.netSlots[i] >= 0) {
          jacobian[equations.netSlots[i]] += gmin;
          residual[i] -= gmin * x[i];
        }
      }
      try {
        solver.factor(jacobian);
      } catch (error) {
        if (!(error instanceof SingularPlan)) throw error;
        if (gmin === 0 && equations.linear)
          throw singularError(this.system, error.unknown, error.equation, ' at d.c.');
        this.culprit = this.system.unknowns[error.unknown]?.label ?? '';
        return false;
      }
      trial.set(x);
      solver.solve(residual, residual);
      let settled = held === undefined;
      for (let i = 0; i < equations.size; i++) {
        const move = residual[i];
        if (!Number.isFinite(move)) return false;
        x[i] += move;
        if (Math.abs(move) > RELATIVE * Math.abs(x[i]) + ABSOLUTE) {
          settled = false;
          this.culprit = this.system.unknowns[i].label;
        }
      }
      if (held) this.culprit = `part ${held}`;
      if (settled || equations.linear) {
        equations.evaluate(x);
        return true;
      }
    }
    return false;
  }
}

/** Where a circuit comes to rest, with waveforms at the value they have before t = 0. */
export function operatingPoint(
  circuit: Circuit,
  options: { signal?: AbortSignal } = {},
): OperatingPoint {
  checkWiring(circuit, 'dc');
  const system = compile(circuit, 'large-signal');
  const search = new OperatingPointSearch(system, options.signal);
  const x = search.find();
  const at = (net: string) => (net === circuit.ground ? 0 : x[system.netIndex.get(net)!]);
  const power: Record<string, number> = {};
  for (const part of circuit.parts) {
    const taken = deviceOf(part.kind).takes?.(part, at);
    if (taken !== undefined) power[part.id] = taken;
  }
  const devices: Record<string, number[]> = {};
  for (const { element, values } of search.equations.elementValues()) {
    devices[element.part] = [...(devices[element.part] ?? []), ...values.current];
    const taken = element.rows.reduce(
      (sum, row, r) =>
        sum + (row < 0 || system.unknowns[row].kind !== 'net' ? 0 : x[row] * values.current[r]),
      0,
    );
    power[element.part] = (power[element.part] ?? 0) + taken;
  }
  return {
    nodes: Object.fromEntries([...system.netIndex].map(([net, i]) => [net, x[i]])),
    currents: Object.fromEntries([...system.branchIndex].map(([part, i]) => [part, x[i]])),
    devices,
    power,
    iterations: search.iterations,
  };
}
