import type { CompiledSolver } from '../compiled/compiled-solver';
import { CarefulSolver, type Undetermined } from '../linear/careful';
import type { ExactMatrix } from '../linear/exact-matrix';
import type { FrequencySolver } from '../linear/frequency-solver';
import type { SlotMatrix } from '../linear/matrix';
import { REFINABLE, SOUND } from '../linear/trust';
import type { ComplexTrace } from './complex';
import type { Question } from './question';

const { hypot, max, min } = Math;

/** The equations as they stand, and who can solve them. */
export interface Scrutinised {
  matrix: SlotMatrix;
  rhs: ComplexTrace;
  /** The same equations in two doubles. */
  exact(): ExactMatrix;
  /** A planned solver for all unknowns; absent where no order of pivots was found. */
  narrow(): FrequencySolver | undefined;
}

/** A correction of at most this part leaves, after it was made, less than its square. */
const ACCEPTED = 1e-7;
/** Where the correction would be smaller than this, neighbouring frequencies need none: all digits. */
const NEGLIGIBLE = 5e-14;
/** Pivots that lost up to three times as much (squared) are about as bad. */
const ALIKE = 9;
/** Values that have moved further than by this factor make another circuit. */
const FAR = 10;

/** What is to be solved. */
export interface Aim {
  /** Unknowns whose digits matter; those of a transposed solution matter as they bear on its goal. */
  wanted: readonly number[] | 'all';
  /** Right-hand side; without it, that of the sources. */
  rhs?: ComplexTrace;
  transposed?: boolean;
  /** A solver whose own rounding is measured as well: another order of sums loses other digits. */
  by?: CompiledSolver;
}

/** A solution corrected once, how large the correction was, and for a transposed one what each row counts. */
interface Refined {
  x: ComplexTrace;
  loss: number;
  doubt: number;
  weights: Float64Array | undefined;
}

/** How much doubt of the pivots is no doubt of the result, by what is asked for and neighbourhood. */
export class Measured {
  private readonly limits = new Map<string, Map<number, number>>();

  /**
   * @param around the values it is measured with
   * @param negligible what a solution may lose, as a part of itself
   */
  constructor(
    readonly around: Float64Array,
    readonly negligible = NEGLIGIBLE,
  ) {}

  of(key: string): Map<number, number> {
    let own = this.limits.get(key);
    if (!own) this.limits.set(key, (own = new Map<number, number>()));
    return own;
  }
}

/**
 * Measures what a planned solution has lost, by one step of refinement whose residual is taken in
 * two doubles: the step is as large as the error was (J. Demmel et al., "Error Bounds from
 * Extra-Precise Iterative Refinement", ACM TOMS 32, 2006). What refinement cannot mend is solved by
 * the careful twin.
 *
 * One measurement speaks for an octave, as long as values stay near those it was made
 * with: what makes equations lose digits (values many decades apart) changes slowly with frequency,
 * and resonances show themselves by their pivots.
 */
export class Scrutiny {
  private readonly limits = new Map<string, { question: Question; limits: Float64Array }>();

  /** @param measured what is known already; shared by all whose values are near those it was measured with */
  constructor(
    private readonly equations: Scrutinised,
    private measured: Measured,
  ) {}

  /** Values have changed: forget what was measured with others far from them. */
  moved(values: Float64Array): void {
    if (allNear(values, this.measured.around)) return;
    this.measured = new Measured(values.slice(), this.measured.negligible);
    this.limits.clear();
  }

  /**
   * For each frequency of a question, up to which doubt of its pivots a planned solution keeps its
   * digits: up to that of sound ones where their neighbourhood was measured, or to what was measured
   * there; none where digits are lost though the pivots seem sound.
   */
  limitsOf(question: Question, aim: Aim, key: string): Float64Array {
    const known = this.limits.get(key);
    if (known?.question === question) return known.limits;
    const measured = this.measured.of(key);
    const { omega, neighbourhoods } = question;
    const limits = new Float64Array(omega.length);
    for (let k = 0; k < omega.length; k++) {
      const place = neighbourhoods[k];
      let limit = measured.get(place);
      if (limit === undefined) measured.set(place, (limit = this.limitAt(omega[k], aim)));
      limits[k] = limit;
    }
    this.limits.set(key, { question, limits });
    return limits;
  }

  private limitAt(omega: number, aim: Aim): number {
    const { negligible } = this.measured;
    const refined = this.refined(omega, aim);
    if (!refined || !(refined.loss <= negligible)) return -1;
    if (aim.by && !(this.lossOf(aim.by, omega, refined, aim) <= negligible)) return -1;
    return min(REFINABLE, max(SOUND, ALIKE * refined.doubt));
  }

  /** The solution at one frequency, to the digits that the values give. */
  solve(omega: number, aim: Aim): ComplexTrace | Undetermined {
    const refined = this.refined(omega, aim);
    if (refined && refined.loss <= ACCEPTED) return refined.x;
    const careful = new CarefulSolver(this.equations.exact());
    return careful.solve(omega, aim.rhs ?? this.equations.rhs, aim.transposed);
  }

  /** The planned solution corrected once, and how large the correction was. */
  private refined(omega: number, aim: Aim): Refined | undefined {
    const solver = this.equations.narrow();
    if (!solver) return undefined;
    solver.solve(Float64Array.of(omega), 0, 1);
    if (!(solver.doubt[0] <= REFINABLE)) return undefined;
    const direct = { re: solver.xRe.slice(), im: solver.xIm.slice() };
    const { rhs = this.equations.rhs, transposed = false } = aim;
    const again = (b: ComplexTrace) =>
      transposed ? solver.solveAgainTransposed(b) : solver.solveAgain(b);
    const x = aim.rhs ? again(rhs) : direct;
    const step = again(this.equations.exact().residual(omega, rhs, x, transposed));
    const weights = transposed ? this.rowSizes(omega, direct) : undefined;
    const loss = weights ? weightedLoss(x, step, weights) : ownLoss(x, step, aim.wanted);
    for (let i = 0; i < x.re.length; i++) {
      x.re[i] += step.re[i];
      x.im[i] += step.im[i];
    }
    return { x, loss, doubt: solver.doubt[0], weights };
  }

  /** How far another solver's solution is from a refined one. */
  private lossOf(by: CompiledSolver, omega: number, { x, weights }: Refined, aim: Aim): number {
    const own = by.single(omega, aim.transposed ?? false);
    const off = {
      re: x.re.map((re, i) => re - own.re[i]),
      im: x.im.map((im, i) => im - own.im[i]),
    };
    return weights ? weightedLoss(x, off, weights) : ownLoss(x, off, aim.wanted);
  }

  /** How large the terms of each equation are at a solution; of the equation itself where that is zero. */
  private rowSizes(omega: number, { re, im }: ComplexTrace): Float64Array {
    const { size, rows, columns, g, c } = this.equations.matrix;
    const [own, driven] = [new Float64Array(size), new Float64Array(size)];
    for (let slot = 0; slot < rows.length; slot++) {
      const [row, column] = [rows[slot], columns[slot]];
      const entry = hypot(g[slot], c[slot] * omega);
      own[row] = max(own[row], entry);
      driven[row] = max(driven[row], entry * hypot(re[column], im[column]));
    }
    return driven.some((x) => x > 0) ? driven : own;
  }
}

function allNear(values: Float64Array, others: Float64Array): boolean {
  for (let i = 0; i < values.length; i++) {
    const [a, b] = [values[i], others[i]];
    if (a === b) continue;
    const ratio = a / b;
    if (!(ratio <= FAR && ratio >= 1 / FAR)) return false;
  }
  return true;
}

/** The largest part of itself by which a wanted unknown is corrected. */
function ownLoss(x: ComplexTrace, step: ComplexTrace, wanted: readonly number[] | 'all'): number {
  let worst = 0;
  const look = (i: number) => {
    const moved = hypot(step.re[i], step.im[i]);
    if (moved === 0) return;
    const part = moved / hypot(x.re[i], x.im[i]);
    if (!(part <= worst)) worst = part;
  };
  if (wanted === 'all') for (let i = 0; i < x.re.length; i++) look(i);
  else wanted.forEach(look);
  return worst;
}

/** The same of what equations do to an unknown, each as it bears on it. */
function weightedLoss(y: ComplexTrace, step: ComplexTrace, weights: Float64Array): number {
  let [moved, all] = [0, 0];
  for (let i = 0; i < weights.length; i++) {
    const off = hypot(step.re[i], step.im[i]) * weights[i];
    if (!(off <= moved)) moved = off;
    all = max(all, hypot(y.re[i], y.im[i]) * weights[i]);
  }
  return all > 0 ? moved / all : moved;
}
