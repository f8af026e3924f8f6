import type { Entry } from '@/core/circuit/compile';
import { productOf } from '@/core/circuit/stamper';
import type { FrequencySolver } from '../linear/frequency-solver';
import type { SlotMatrix } from '../linear/matrix';
import type { Complex } from '@/core/numeric/complex';
import { unitTrace, type ComplexTrace } from './complex';
import type { Aim } from './scrutiny';

/** Equations as they stand, of which a point is a solution. */
export interface PointSource {
  entries: readonly Entry[];
  values: ArrayLike<number>;
  matrix: SlotMatrix;
  rhs: ComplexTrace;
  solveCarefully(omega: number, aim: Aim): ComplexTrace;
}

/**
 * A circuit at one frequency, its equations factored once: as its sources drive it, and what a unit
 * put into any single equation would do. It holds until the analysis is asked for another one.
 */
export class PointSolution {
  /** Every unknown, as the sources drive it. */
  readonly x: ComplexTrace;
  /** The planned solver with its factors, where every pivot was sound. */
  private readonly sound: FrequencySolver | undefined;

  /** @throws ReedError `singular` where the equations have no unique solution */
  constructor(
    private readonly analysis: PointSource,
    solver: FrequencySolver | undefined,
    private readonly omega: number,
  ) {
    this.sound = solver?.solve(Float64Array.of(omega), 0, 1) ? solver : undefined;
    this.x = this.sound
      ? { re: this.sound.xRe.slice(), im: this.sound.xIm.slice() }
      : analysis.solveCarefully(omega, { wanted: 'all' });
  }

  /** Every unknown, with a unit put into one equation and no source: 1 A into a net, 1 V into a branch. */
  unitInto(row: number): ComplexTrace {
    const rhs = unitTrace(this.analysis.matrix.size, row);
    return (
      this.sound?.solveAgain(rhs) ??
      this.analysis.solveCarefully(this.omega, { wanted: 'all', rhs })
    );
  }

  /** What a unit put into each equation does to one unknown, by equation. */
  transfersTo(unknown: number): ComplexTrace {
    const rhs = unitTrace(this.analysis.matrix.size, unknown);
    return (
      this.sound?.solveAgainTransposed(rhs) ??
      this.analysis.solveCarefully(this.omega, { wanted: 'all', rhs, transposed: true })
    );
  }

  /**
   * What some parts add up to in one equation: the current they draw from a net.
   *
   * @param x every unknown
   * @param of whether a part counts, by its id
   */
  drawn(row: number, x: ComplexTrace, of: (part: string) => boolean): Complex {
    const sum = { re: 0, im: 0 };
    for (const entry of this.analysis.entries) {
      if (entry.row !== row || !of(entry.part)) continue;
      const value = productOf(entry, this.analysis.values);
      const [re, im] = [x.re[entry.column], x.im[entry.column]];
      if (entry.reactive) {
        sum.re -= value * this.omega * im;
        sum.im += value * this.omega * re;
      } else {
        sum.re += value * re;
        sum.im += value * im;
      }
    }
    return sum;
  }
}
