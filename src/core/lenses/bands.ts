import { AcAnalysis } from '@/core/analysis/ac/ac';
import { percentiles } from '@/core/analysis/boards/percentiles';
import type { Circuit } from '@/core/circuit/schema';
import { withValue } from '@/core/circuit/values';
import { ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { boardsOfSheet, type BoardsOfSheetOptions } from '@/core/sheet/spread-sheet';
import { boardRandom, drawBoard, type Deviating } from '@/core/spread/deviations';
import type { Board, BoardCurves } from './boards';
import { delaysOfBoards } from './delay';
import { headroomOfBoards } from './headroom';
import { impedancesOfBoards } from './impedance';
import { noiseOfBoards } from './noise';
import { timesOfBoards } from './time';

/** Lenses besides those that the spread itself is about, over which tolerances are shown as a band. */
export const BANDED = {
  delay: delaysOfBoards,
  time: timesOfBoards,
  impedance: impedancesOfBoards,
  noise: noiseOfBoards,
  headroom: headroomOfBoards,
};

export type BandedLens = keyof typeof BANDED;

/** What nine boards in ten stay within, by frequency or moment. */
export interface CurveBand {
  at: Float64Array;
  low: Float64Array;
  high: Float64Array;
}

const ENDS = [0.05, 0.95];

export interface LensBandsOptions extends BoardsOfSheetOptions {
  /** At most so many will be drawn. */
  boards: number;
  seed: number;
}

/**
 * Curves of a lens over many boards of a sheet: the very boards that `Spread` draws from the same
 * seed, one by one.
 */
export class LensBands {
  drawn = 0;
  private readonly analysis: AcAnalysis;
  private readonly circuit: Circuit;
  private readonly deviating: readonly Deviating[];
  private readonly kelvins: number;
  private readonly nominal: Float64Array;
  private readonly curves: BoardCurves;
  /** By curve: by place, then board. */
  private readonly values: ReadonlyMap<string, Float64Array>;
  private readonly places: ReadonlyMap<string, number>;

  /** @throws ReedError as solving the sheet */
  constructor(
    sheet: Sheet,
    lens: BandedLens,
    private readonly options: LensBandsOptions,
  ) {
    const { circuit, deviating, kelvins } = boardsOfSheet(sheet, options);
    this.circuit = circuit;
    this.kelvins = kelvins;
    this.analysis = new AcAnalysis(circuit);
    this.nominal = this.analysis.values.slice();
    this.deviating = deviating(this.analysis);
    this.curves = BANDED[lens](sheet);
    this.places = new Map(circuit.parts.map(({ id }, i) => [id, i]));
    this.values = new Map(
      Object.entries(this.curves.places).map(([name, at]) => [
        name,
        new Float64Array(at.length * options.boards),
      ]),
    );
  }

  /** Draw further boards and read their curves. */
  draw(count: number): void {
    const { boards, seed } = this.options;
    const last = Math.min(boards, this.drawn + count);
    const own = new Float64Array(this.deviating.length);
    for (; this.drawn < last; this.drawn++) {
      drawBoard(this.deviating, boardRandom(seed, this.drawn), this.kelvins, own);
      this.take(own);
    }
  }

  /** The band of every curve over the boards so far. */
  result(): Record<string, CurveBand> {
    const { boards } = this.options;
    return Object.fromEntries(
      [...this.values].map(([name, values]) => {
        const at = this.curves.places[name];
        const [low, high] = [new Float64Array(at.length), new Float64Array(at.length)];
        for (let k = 0; k < at.length; k++) {
          const here = values
            .subarray(k * boards, k * boards + this.drawn)
            .filter((v) => !isNaN(v));
          [low[k], high[k]] = here.length > 0 ? percentiles(here, ENDS) : [NaN, NaN];
        }
        return [name, { at, low, high }];
      }),
    );
  }

  private boardOf(deviations: Float64Array): Board {
    const { analysis, nominal, deviating, circuit, places } = this;
    analysis.values.set(nominal);
    deviating.forEach(({ parameter }, i) => (analysis.values[parameter] *= 1 + deviations[i]));
    analysis.update();
    return {
      analysis,
      circuit: () => {
        const parts = [...circuit.parts];
        for (const { parameter } of deviating) {
          const { part, name } = analysis.system.parameters[parameter];
          const place = places.get(part)!;
          parts[place] = withValue(parts[place], name, analysis.values[parameter]);
        }
        return { ...circuit, parts };
      },
    };
  }

  /** A board that has no such curves, as one whose rest is not found, leaves the band to the others. */
  private take(deviations: Float64Array): void {
    const { boards } = this.options;
    let found: Readonly<Record<string, Float64Array>> = {};
    try {
      found = this.curves.read(this.boardOf(deviations));
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
    }
    for (const [name, values] of this.values) {
      const count = this.curves.places[name].length;
      for (let k = 0; k < count; k++) values[k * boards + this.drawn] = found[name]?.[k] ?? NaN;
    }
  }
}
