import type { System } from '@/core/circuit/compile';
import { constantOf } from '@/core/circuit/stamper';
import { Values } from '@/core/circuit/values';
import { valueAtRest } from '@/core/circuit/waveform';
import { ReedError } from '@/core/errors';
import { seededRandom } from '@/core/random';
import { LargeSignalEquations } from '../large-signal/equations';
import { CarefulSolver } from '../linear/careful';
import { ExactMatrix } from '../linear/exact-matrix';
import { singularError } from '../linear/singular';
import { Newton, type Assistance } from './newton';
import { starvedWords } from './starved';

/** Points further apart than this, volts, are different ones. */
const APART = 1e-3;
/** Starts from which further solutions are looked for. */
const STARTS = 12;

/**
 * Finds where a circuit comes to rest. Linear circuits are solved in numbers of two doubles. Others go
 * by Newton's method; where that fails, the nets are first tied to ground through conductances that
 * are then taken away (gmin stepping), then the sources are raised from zero (source stepping; W. J.
 * McCalla, "Fundamentals of Computer-Aided Circuit Simulation", 1988, chapter 5), then nets and the gain
 * of op-amps are tied together and let go, and last the circuit is let fall into a state as if every net
 * had a capacitor (pseudo-transient continuation; C. T. Kelley, D. E. Keyes, SIAM J. Numer. Anal. 35,
 * 1998): regenerative pairs snap over on the way.
 */
export class OperatingPointSearch {
  readonly equations: LargeSignalEquations;
  private readonly newton: Newton;
  private readonly rhs: Float64Array;

  constructor(
    readonly system: System,
    signal?: AbortSignal,
    values = new Values(system),
  ) {
    this.equations = new LargeSignalEquations(system, values);
    this.rhs = new Float64Array(this.equations.size);
    this.newton = new Newton(this.equations, this.rhs, signal);
    this.drive();
  }

  get iterations(): number {
    return this.newton.iterations;
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
    if (this.equations.linear) return this.solveLinear();
    const x = new Float64Array(this.equations.size);
    if (from) {
      x.set(from);
      if (this.newton.settle(x)) return x;
      x.fill(0);
    }
    const ways = [
      () => this.newton.settle(x),
      () => this.gminStepping(x),
      () => this.sourceStepping(x),
      ...[undefined, BOUNDS[0]].map(
        (bound) => () => this.gminStepping(x, { anchor: new Float64Array(x.length), bound }),
      ),
      ...BOUNDS.map((bound) => () => this.pseudoTransient(x, bound)),
    ];
    for (const way of ways) {
      x.fill(0);
      if (way()) return x;
    }
    const { culprit, singular } = this.newton;
    if (singular) throw singularError(this.system, singular.unknown, singular.equation, ' at d.c.');
    const why =
      starvedWords(this.system.circuit) ??
      `${culprit || 'the circuit'} would not settle. Check its polarity and supply, or give it a resistance in series.`;
    throw new ReedError('convergence', `No operating point was found: ${why}`, { part: culprit });
  }

  /**
   * Further points at which the circuit can rest, or balance, besides a known one: looked for from
   * several sides, so that a latch or a flip-flop shows its states. There is no promise of all.
   */
  others(found: Float64Array): Float64Array[] {
    if (this.system.elements.length < 2) return [];
    const known = [found];
    const random = seededRandom(1);
    const [low, high] = this.rails();
    for (let k = 0; k < STARTS; k++) {
      const x = Float64Array.from(found, (_, i) =>
        this.equations.netSlots[i] < 0 ? 0 : k === 0 ? 0 : low + (high - low) * random(),
      );
      if (!this.newton.settle(x, { known, mostIterations: 60 })) continue;
      // Without the push away from known ones it must stay.
      const there = x.slice();
      if (!this.newton.settle(x) || this.apart(x, there) > APART) continue;
      if (known.every((point) => this.apart(x, point) > APART)) known.push(x);
    }
    this.equations.evaluate(found);
    return known.slice(1);
  }

  /** Lowest and highest of the voltages that sources hold. */
  private rails(): [number, number] {
    const volts = [...this.rhs.keys()]
      .filter((row) => this.equations.netSlots[row] < 0)
      .map((row) => this.rhs[row]);
    return [Math.min(0, ...volts), Math.max(1, ...volts)];
  }

  private apart(a: Float64Array, b: Float64Array): number {
    let most = 0;
    for (let i = 0; i < a.length; i++)
      if (this.equations.netSlots[i] >= 0) most = Math.max(most, Math.abs(a[i] - b[i]));
    return most;
  }

  private solveLinear(): Float64Array {
    const { equations, system } = this;
    const matrix = new ExactMatrix(equations.pattern, equations.entries, equations.values.all);
    const x = new CarefulSolver(matrix).solve(0, {
      re: this.rhs,
      im: new Float64Array(this.rhs.length),
    });
    if ('unknown' in x) throw singularError(system, x.unknown, x.equation, ' at d.c.');
    equations.evaluate(x.re);
    return x.re;
  }

  /**
   * @param held with an anchor, gain stages of op-amps are held back too, and each step begins where the
   *   last ones were heading: amplifiers in a loop move far at once
   */
  private gminStepping(x: Float64Array, held: Pick<Assistance, 'anchor' | 'bound'> = {}): boolean {
    const { anchor } = held;
    const [grows, patience] = anchor ? [3, 1.001] : [1.5, 1.01];
    let tie = TIE;
    // Amplifiers that drive themselves far have to be tied the harder.
    while (!this.newton.settle(x, { tie, ...held })) {
      x.fill(0);
      tie *= 10;
      if (!anchor || tie > MOST_TIE) return false;
    }
    let factor = 10;
    let before: Tied | undefined;
    while (tie > 1e-13) {
      const here = { x: x.slice(), tie };
      tie /= factor;
      const settles =
        (anchor && before && this.newton.settle(onward(x, before, here, tie), { tie, ...held })) ||
        this.newton.settle(copied(x, here.x), { tie, ...held });
      if (settles) {
        before = here;
        factor = Math.min(10, factor * grows);
      } else {
        tie = here.tie;
        x.set(here.x);
        factor = Math.sqrt(factor);
        if (factor < patience) return false;
      }
    }
    return this.newton.settle(x);
  }

  private sourceStepping(x: Float64Array): boolean {
    let level = 0;
    let step = 0.1;
    while (level < 1) {
      const kept = x.slice();
      const next = Math.min(1, level + step);
      if (this.newton.settle(x, { level: next })) {
        level = next;
        step = Math.min(0.25, step * 1.5);
      } else {
        x.set(kept);
        step /= 2;
        if (step < 1e-4) return false;
      }
    }
    return true;
  }

  /**
   * Steps of implicit Euler, each net with a capacitor, while the sources come up; they grow as long
   * as they settle.
   *
   * @param bound of a device's voltage in one pass, volts
   */
  private pseudoTransient(x: Float64Array, bound: number): boolean {
    let tie = 1;
    let level = 0;
    let rise = RISE;
    let undetermined = 0;
    const last = this.iterations + MOST_ITERATIONS;
    while (this.iterations < last) {
      const anchor = x.slice();
      const next = Math.min(1, level + rise);
      const assistance = { tie, anchor, level: next, bound, mostIterations: 100 };
      if (this.newton.settle(x, assistance)) {
        level = next;
        if (level === 1 && (this.apart(x, anchor) < SETTLED || tie < 1e-12)) {
          const kept = x.slice();
          if (this.newton.settle(x, { bound }) && (tie < 1e-9 || this.apart(x, kept) < 1))
            return true;
          if (this.newton.singular && ++undetermined > MOST_UNDETERMINED) return false;
          x.set(kept);
        }
        tie /= 2;
        rise = Math.min(RISE, 2 * rise);
      } else {
        x.set(anchor);
        tie *= 8;
        rise /= 8;
        // What nothing determines stays so, however short the step.
        if (this.newton.singular && ++undetermined > MOST_UNDETERMINED) return false;
        if (tie > 1e12) return false;
      }
    }
    return false;
  }
}

/** The conductance that nets are tied to ground with at first, and at most, siemens. */
const TIE = 1e-2;
const MOST_TIE = 1e4;
/** Of a device's voltage in one pass, volts: bold first, for amplifiers that drive themselves far. */
const BOUNDS = [1, 0.3, 0.1];
/** Part of the sources that comes up in one step. */
const RISE = 0.05;
/** Newton iterations that are spent on falling into a state. */
const MOST_ITERATIONS = 2500;
const MOST_UNDETERMINED = 3;
/** A step that moves no net by more than this has come near a state of rest, volts. */
const SETTLED = 1e-3;

/** Where a circuit rests with its nets tied. */
interface Tied {
  x: Float64Array;
  tie: number;
}

function copied(x: Float64Array, from: Float64Array): Float64Array {
  x.set(from);
  return x;
}

/** Sets `x` to where a way leads that went through two points, along the logarithm of the tie. */
function onward(x: Float64Array, before: Tied, here: Tied, tie: number): Float64Array {
  const share = Math.log(tie / here.tie) / Math.log(here.tie / before.tie);
  for (let i = 0; i < x.length; i++) x[i] = here.x[i] + share * (here.x[i] - before.x[i]);
  return x;
}
