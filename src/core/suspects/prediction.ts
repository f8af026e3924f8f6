import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { alignedMovables, movables, type Movable } from './movable';
import type { View } from './question';
import { ViewPrediction, type ViewCurve } from './view-prediction';

/** A curve as it is compared, what each movable value does to it, and what unknown levels do. */
export interface SlopedCurve extends ViewCurve {
  /** By take whose level nobody knows: what a decibel more of it does. */
  gains: Float64Array[];
}

/**
 * What takes of one board would be like together, for values that are off. Each take is of its own
 * circuit: the board with what it was driven and measured with.
 */
export class Prediction {
  readonly movables: readonly Movable[];
  /** Of all takes together. */
  readonly points: number;
  private softly: Prediction | undefined;

  constructor(private readonly views: readonly ViewPrediction[]) {
    this.movables = views[0].movables;
    this.points = views.reduce((sum, v) => sum + v.points, 0);
  }

  /**
   * The same with what lies far below its neighbours drowned: nulls have no walls then that a search could
   * not get over.
   */
  get soft(): Prediction {
    return (this.softly ??= new Prediction(this.views.map((v) => v.softened())));
  }

  /** The same circuits held against other takes of them, or takes of other noise. */
  against(others: readonly Pick<View, 'take' | 'noise'>[]): Prediction {
    return new Prediction(this.views.map((v, i) => v.against(others[i])));
  }

  /** Takes less prediction, in units of the noise; undefined where a circuit has no such curve. */
  misfit(x: Float64Array): Float64Array | undefined {
    const all = this.views.map((v) => v.misfit(x));
    return all.every((v) => v !== undefined) ? this.joined(all) : undefined;
  }

  /** The same with slopes: what each value takes away from it. */
  sloped(x: Float64Array): SlopedCurve | undefined {
    const all = this.views.map((v) => v.sloped(x));
    if (!all.every((v) => v !== undefined)) return undefined;
    return {
      values: this.joined(all.map((v) => v.values)),
      columns: this.movables.map((_, i) => this.joined(all.map((v) => v.columns[i]))),
      gains: this.views.flatMap(({ gain }, i) =>
        gain
          ? [this.joined(this.views.map((v, j) => (i === j ? gain : new Float64Array(v.points))))]
          : [],
      ),
    };
  }

  /** By point, how many decibels a unit of the noise is, or as much of a phase. */
  inDb(): Float64Array {
    return this.joined(this.views.map((v) => v.inDb()));
  }

  /** What moves, with its places in the circuit of one take. */
  movablesIn(view: number): readonly Movable[] {
    return this.views[view].movables;
  }

  /** By how much a take stands above the prediction, dB. */
  gainDb(x: Float64Array, view = 0): number {
    return this.views[view].gainDb(x);
  }

  /** The value of a movable that is off by so much. */
  valueAt(movable: number, x: number): number {
    for (const view of this.views) {
      const value = view.valueAt(movable, x);
      if (value !== undefined) return value;
    }
    return NaN;
  }

  private joined(parts: readonly Float64Array[]): Float64Array {
    if (parts.length === 1) return parts[0];
    const all = new Float64Array(this.points);
    let at = 0;
    for (const part of parts) {
      all.set(part, at);
      at += part.length;
    }
    return all;
  }
}

/**
 * Takes held against their circuits.
 *
 * @param own what moves in a circuit, where that is not only what may be off
 */
export function predictionOf(
  views: readonly View[],
  analyses: readonly AcAnalysis[],
  own: (analysis: AcAnalysis, list: Movable[]) => Movable[] = (_, list) => list,
): Prediction {
  const lists = alignedMovables(
    views.map(({ rules, fixed }, i) => own(analyses[i], movables(analyses[i], rules, fixed))),
  );
  return new Prediction(views.map((view, i) => new ViewPrediction(analyses[i], view, lists[i])));
}
