import { checkWiring } from '@/core/circuit/check';
import { compile, type Entry, type System } from '@/core/circuit/compile';
import type { Circuit } from '@/core/circuit/schema';
import { Values } from '@/core/circuit/values';
import type { ElementValues, NonlinearElement } from '@/core/circuit/stamper';
import { compileFrequencies } from '../compiled/compile';
import type { CompiledSolver } from '../compiled/compiled-solver';
import { OperatingPointSearch } from '../dc/search';
import type { LargeSignalEquations } from '../large-signal/equations';
import { CarefulSolver } from '../linear/careful';
import { ExactMatrix } from '../linear/exact-matrix';
import { slotMatrix, type SlotMatrix } from '../linear/matrix';
import { planElimination, SingularPlan, type Plan } from '../linear/plan';
import { compileProgram, type Program } from '../linear/program';
import type { ComplexTrace } from './complex';
import { Measured } from './scrutiny';

/** Devices replaced by their slopes at the operating point. */
export class Linearised {
  entries: readonly Entry[];
  /** The operating point, by unknown, and the equations it solves. */
  x: Float64Array;
  private readonly search: OperatingPointSearch;

  /** @throws ReedError `convergence` where there is none */
  constructor(system: System, values: Values, from?: Float64Array, signal?: AbortSignal) {
    this.search = new OperatingPointSearch(system, signal, values);
    this.x = this.search.find(from);
    this.entries = this.equations.smallSignalEntries();
  }

  get equations(): LargeSignalEquations {
    return this.search.equations;
  }

  /** The elements at the operating point. */
  get elements(): { element: NonlinearElement; values: ElementValues }[] {
    return this.equations.elementValues();
  }

  /**
   * The operating point for changed values, looked for from the last one.
   *
   * @throws ReedError `convergence` where there is none; the last one stays
   */
  update(): void {
    this.search.update();
    this.x = this.search.find(this.x);
    this.entries = this.equations.smallSignalEntries();
  }

  /** The same for values of another's own, beginning where this one is. */
  with(values: Values): Linearised {
    return new Linearised(this.equations.system, values, this.x);
  }
}

/** One unknown is its own key: the question asked most needs no words. */
export const keyOf = (unknowns: readonly number[]): number | string =>
  unknowns.length === 1 ? unknowns[0] : unknowns.join(' ');

/** How much was asked of a plan, and its compiled form; null where it has none. */
interface Asked {
  frequencies: number;
  solver?: CompiledSolver | null;
}

/**
 * A compiled plan takes some milliseconds to make and then saves the better part of a microsecond at
 * each frequency.
 */
const PAYS_FROM = 10_000;

/** What holds for any values of a circuit's parts: made once, and shared by all that vary them. */
export class Prepared {
  readonly system: System;
  /** The devices about their operating point; absent for a linear circuit. */
  readonly linearised: Linearised | undefined;
  /** The small-signal equations with the nominal values. */
  readonly matrix: SlotMatrix;
  /** Their right-hand side: every source's phasor on its rows. */
  readonly rhs: ComplexTrace;
  /** What is known of the digits that its plan loses with values near the nominal ones. */
  readonly measured: Measured;
  private plan: Plan | undefined;
  /** By what is asked for. */
  private readonly programs = new Map<number | string, Program>();

  /** @throws ReedError `circuit` for wiring that has no small-signal solution */
  constructor(circuit: Circuit, signal?: AbortSignal, negligible?: number) {
    checkWiring(circuit, 'ac');
    this.system = compile(circuit);
    if (this.system.elements.length > 0) {
      checkWiring(circuit, 'dc');
      this.linearised = new Linearised(this.system, new Values(this.system), undefined, signal);
    }
    this.matrix = slotMatrix(this.system, this.linearised?.entries);
    this.rhs = sourcesOf(this.system);
    const values = Float64Array.from(this.system.parameters, (p) => p.value);
    this.measured = new Measured(values, negligible);
  }

  private readonly kernels = new Map<string, Asked>();

  /**
   * The compiled plan for what is asked, once enough was asked to pay for compiling it.
   *
   * @param frequencies that are asked for now
   * @param transposedFor also solves the transposed equations for this unknown
   */
  compiledFor(
    key: string,
    frequencies: number,
    wanted: readonly number[] | 'all',
    transposedFor?: number,
  ): CompiledSolver | undefined {
    let asked = this.kernels.get(key);
    if (!asked) this.kernels.set(key, (asked = { frequencies: 0 }));
    asked.frequencies += frequencies;
    if (asked.frequencies < PAYS_FROM) return undefined;
    if (asked.solver === undefined) {
      const { plan, program } = this.programFor(wanted);
      asked.solver =
        compileFrequencies(this.matrix, this.rhs, plan, program, transposedFor) ?? null;
    }
    return asked.solver ?? undefined;
  }

  /** Whether no order of pivots was found: every frequency is then solved for itself. */
  planless = false;

  /** Find an order of pivots, if none is known; false where there is none. */
  plansFor(omega: Float64Array): boolean {
    if (!this.planless) this.plan ??= this.makePlan(omega);
    this.planless = !this.plan;
    return !this.planless;
  }

  /**
   * The elimination plan, and what of it is to be done for the wanted unknowns.
   *
   * Ask `plansFor` first.
   */
  programFor(wanted: readonly number[] | 'all'): { plan: Plan; program: Program } {
    const plan = this.plan!;
    const key = wanted === 'all' ? wanted : keyOf(wanted);
    let program = this.programs.get(key);
    if (!program) {
      program = compileProgram(plan, this.matrix.reactive, this.rhs, wanted);
      this.programs.set(key, program);
    }
    return { plan, program };
  }

  /**
   * Pivots are chosen to be safe at the ends and near the middle of what is asked, and at no frequency
   * that nobody asked for: a circuit may have no solution there.
   */
  private makePlan(omega: Float64Array): Plan | undefined {
    const { matrix } = this;
    const found = [...representatives(omega)].map((w) => ({
      re: matrix.g,
      im: matrix.c.map((c) => c * w),
    }));
    const plan = planOf(matrix, found);
    // Where one of the frequencies has no solution an order may serve the others; where none has, none.
    if (plan || !this.solvable(omega[0])) return plan;
    for (const sample of found) {
      const own = planOf(matrix, [sample]);
      if (own) return own;
    }
    return undefined;
  }

  private solvable(omega: number): boolean {
    const entries = [...this.system.entries, ...(this.linearised?.entries ?? [])];
    const values = this.system.parameters.map((p) => p.value);
    const careful = new CarefulSolver(new ExactMatrix(this.matrix, entries, values));
    return !('unknown' in careful.solve(omega, this.rhs));
  }
}

function planOf(
  matrix: SlotMatrix,
  samples: Parameters<typeof planElimination>[1],
): Plan | undefined {
  try {
    return planElimination(matrix, samples);
  } catch (error) {
    if (!(error instanceof SingularPlan)) throw error;
    return undefined;
  }
}

/** The lowest and the highest of some frequencies, and the one nearest to their middle on a log axis. */
function representatives(omega: Float64Array): Set<number> {
  const positive = omega.filter((w) => w > 0);
  if (positive.length === 0) return new Set([0]);
  const low = positive.reduce((a, b) => Math.min(a, b));
  const high = positive.reduce((a, b) => Math.max(a, b));
  const middle = Math.sqrt(low) * Math.sqrt(high);
  const off = (w: number) => (w > middle ? w / middle : middle / w);
  return new Set([low, positive.reduce((a, b) => (off(b) < off(a) ? b : a)), high]);
}

function sourcesOf(system: System): ComplexTrace {
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
