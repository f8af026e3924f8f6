import { constantOf, type SourceTerm } from '@/core/circuit/stamper';
import { jumpsAt, nextBreak, waveformValue } from '@/core/circuit/waveform';
import { bendsOnlyOnGrid } from '@/core/circuit/waveform-grid';
import type { RightHandSide } from './stepper';

/** The right-hand side over time. */
export class Drive implements RightHandSide {
  private readonly rhs: Float64Array;

  constructor(
    readonly sources: readonly SourceTerm[],
    private readonly values: ArrayLike<number>,
    size: number,
  ) {
    this.rhs = new Float64Array(size);
  }

  at(t: number, side: -1 | 1): Float64Array {
    this.rhs.fill(0);
    for (const term of this.sources) {
      const { row, sign, waveform } = term;
      const now = waveform ? waveformValue(waveform, t, side) : constantOf(term, this.values);
      this.rhs[row] += sign * now;
    }
    return this.rhs;
  }

  /** Of those sources only whose breaks may lie within the steps of a grid. */
  breaksWithin(step: number): Drive {
    const sources = this.sources.filter(
      ({ waveform }) => waveform && !bendsOnlyOnGrid(waveform, step),
    );
    return new Drive(sources, this.values, this.rhs.length);
  }

  /** Right-hand side of the sources that stay as they are, by row. */
  steady(): Float64Array {
    this.rhs.fill(0);
    for (const term of this.sources)
      if (!term.waveform) this.rhs[term.row] += term.sign * constantOf(term, this.values);
    return this.rhs;
  }

  /** The others. */
  get moving(): readonly SourceTerm[] {
    return this.sources.filter(({ waveform }) => waveform);
  }

  /** The next time after t at which some source jumps or bends; Infinity when none does. */
  nextBreak(t: number): number {
    let next = Infinity;
    for (const { waveform } of this.sources)
      if (waveform) next = Math.min(next, nextBreak(waveform, t));
    return next;
  }

  /** Whether some source jumps at t. */
  jumpsAt(t: number): boolean {
    return this.sources.some(({ waveform }) => waveform && jumpsAt(waveform, t));
  }
}
