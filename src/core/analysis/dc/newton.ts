import { stopIfAsked } from '@/core/errors';
import type { LargeSignalEquations } from '../large-signal/equations';
import { SingularPlan } from '../linear/plan';
import { RealSolver } from '../linear/real-solver';

const { abs, sign } = Math;

/** A point is found when no voltage moves by more than this part of itself plus a little. */
const RELATIVE = 1e-9;
const ABSOLUTE = 1e-12;
/** Moves that no longer shrink are rounding when they are this much larger at most. */
const ROUNDING = 1e3;
const STALLED_FOR = 6;
const MOST_ITERATIONS = 120;

/** How the equations are changed while a point is looked for. */
export interface Assistance {
  /** Part of the sources that is on. */
  level?: number;
  /**
   * Conductance from every net to where it stood in `anchor` (or to ground), siemens; with an anchor,
   * whatever stores (a coil, the gain stage of an op-amp) is tied to where it stood too.
   */
  tie?: number;
  anchor?: Float64Array;
  /** No device's voltage moves by more than this in one pass, volts. */
  bound?: number;
  /** Solutions that are known and not to be found again. */
  known?: readonly Float64Array[];
  mostIterations?: number;
}

/** Newton's method with junction limiting on the static equations of a circuit with devices. */
export class Newton {
  iterations = 0;
  /** What moved most, or could not be determined, where it did not settle. */
  culprit = '';
  /** What had no pivot, where the last search ended with that. */
  singular: SingularPlan | undefined;
  private readonly solver: RealSolver;
  private readonly residual: Float64Array;
  private readonly jacobian: Float64Array;
  private readonly trial: Float64Array;
  /** Slot on the diagonal of each net and each unknown that is stored, else -1; and which way it pulls. */
  private readonly storing: Int32Array;
  private readonly signs: Float64Array;

  constructor(
    private readonly equations: LargeSignalEquations,
    private readonly rhs: Float64Array,
    private readonly signal?: AbortSignal,
  ) {
    this.solver = new RealSolver(equations.pattern);
    this.residual = new Float64Array(equations.size);
    this.jacobian = new Float64Array(equations.pattern.rows.length);
    this.trial = new Float64Array(equations.size);
    this.storing = equations.netSlots.slice();
    this.signs = new Float64Array(equations.size).fill(1);
    const { rows, columns, c } = equations.pattern;
    c.forEach((stored, slot) => {
      const i = rows[slot];
      if (stored === 0 || i !== columns[slot] || this.storing[i] >= 0) return;
      this.storing[i] = slot;
      this.signs[i] = sign(stored);
    });
  }

  /** Iterate from `x`, in place; false when it does not settle. */
  settle(x: Float64Array, assistance: Assistance = {}): boolean {
    this.singular = undefined;
    const settled = this.iterate(x, assistance);
    if (!settled) this.solver.forget();
    return settled;
  }

  private iterate(x: Float64Array, assistance: Assistance): boolean {
    const { equations, residual, trial } = this;
    const { known, bound = Infinity, mostIterations = MOST_ITERATIONS } = assistance;
    trial.set(x);
    let stalled = 0;
    let before = Infinity;
    for (let pass = 0; pass < mostIterations; pass++) {
      if ((++this.iterations & 7) === 0) stopIfAsked(this.signal);
      const held = equations.evaluate(x, trial);
      this.assemble(x, assistance);
      try {
        this.solver.factor(this.jacobian);
      } catch (error) {
        if (!(error instanceof SingularPlan)) throw error;
        this.singular = error;
        this.culprit = equations.system.unknowns[error.unknown]?.label ?? '';
        return false;
      }
      trial.set(x);
      this.solver.solve(residual, residual);
      const largest = equations.largestInput(residual);
      const stretch =
        (known ? awayFrom(known, x, residual, equations.netSlots) : 1) *
        (largest > bound ? bound / largest : 1);
      let worst = 0;
      for (let i = 0; i < equations.size; i++) {
        const move = stretch * residual[i];
        if (!Number.isFinite(move)) return false;
        x[i] += move;
        const size = abs(move) / (RELATIVE * abs(x[i]) + ABSOLUTE);
        if (size > worst) worst = size;
        if (size > 1) this.culprit = equations.system.unknowns[i].label;
      }
      if (held) this.culprit = `part ${held}`;
      stalled = worst <= ROUNDING && worst > before / 2 ? stalled + 1 : 0;
      before = worst;
      if (held === undefined && (worst <= 1 || stalled >= STALLED_FOR)) {
        equations.evaluate(x);
        return true;
      }
    }
    return false;
  }

  private assemble(x: Float64Array, { level = 1, tie = 0, anchor }: Assistance): void {
    const { equations, residual, jacobian, rhs } = this;
    jacobian.set(equations.conductances);
    for (let i = 0; i < equations.size; i++) {
      residual[i] = level * rhs[i] - equations.statics[i];
      const slot = anchor ? this.storing[i] : equations.netSlots[i];
      if (tie === 0 || slot < 0) continue;
      const own = this.signs[i] * tie;
      jacobian[slot] += own;
      residual[i] -= own * (x[i] - (anchor ? anchor[i] : 0));
    }
  }
}

/** No deflated step is longer than this many plain ones. */
const LONGEST = 10;

/**
 * By how much a Newton step is to be stretched so that it leads away from known solutions: the
 * equations are thought multiplied by 1 + 1/|x - known|^2 (P. E. Farrell, A. Birkisson, S. W. Funke,
 * "Deflation Techniques for Finding Distinct Solutions", SIAM J. Sci. Comput. 37, 2015).
 */
function awayFrom(
  known: readonly Float64Array[],
  x: Float64Array,
  step: Float64Array,
  netSlots: Int32Array,
): number {
  let slope = 0;
  for (const point of known) {
    let [square, along] = [1e-12, 0];
    for (let i = 0; i < x.length; i++) {
      if (netSlots[i] < 0) continue;
      square += (x[i] - point[i]) ** 2;
      along += (x[i] - point[i]) * step[i];
    }
    slope -= (2 * along) / (square * (1 + square));
  }
  const stretch = 1 / (1 - slope);
  return abs(stretch) <= LONGEST ? stretch : sign(stretch) * LONGEST;
}
