import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { Circuit } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import type { Band, Landmark } from '@/core/response/landmarks';
import {
  ResponseReader,
  valueOrNaN,
  type Measure,
  type ReadingContext,
} from '@/core/response/readings';
import { levelDb, responseOf } from '@/core/response/response';
import { sampleResponse } from '@/core/response/sample';
import { BoardReader } from './board-reader';
import { boardRandom, drawBoard, type Deviating } from './deviations';
import { sharesOf } from './shares';
import { bandOf, figuresOf, type SpreadBand } from './bands';
import { Tally, type TallyCount, type TallyFrame } from './tally';

export interface SpreadRequest {
  circuit: Circuit;
  probe: string;
  deviating: (analysis: AcAnalysis) => readonly Deviating[];
  seed: number;
  /** At most so many boards will be drawn. */
  boards: number;
  /** The number of the first of them: boards are drawn by their number. */
  first?: number;
  /** Steps to count in, where other boards were counted before. */
  frames?: SpreadFrames;
  /** Kelvins that the room may be off. */
  kelvins?: number;
  /** Frequencies that the level is wanted at, and perhaps the phase. */
  levelsAt?: Float64Array;
  phases?: boolean;
  readings: readonly SpreadReading[];
  /** Where readings are looked for, and where the curve bends. */
  span: Band;
  landmarks?: readonly Landmark[];
  context?: ReadingContext;
}

export interface SpreadReading {
  measure: Measure;
  /** The net it is read at, where that is another than the probe. */
  net?: string;
  /** Whether a value is what is wanted of it. */
  met?: (value: number) => boolean;
}

/** The steps in which levels, phases and readings are counted. */
export interface SpreadFrames {
  levels: readonly TallyFrame[];
  phases: readonly TallyFrame[];
  readings: readonly TallyFrame[];
}

/** Some of many boards, counted, to be added to others. */
export interface SpreadPortion {
  boards: number;
  levels: TallyCount[];
  phases: TallyCount[];
  readings: TallyCount[];
  /** Boards that are as wanted, by reading, and those that are in everything. */
  met: Uint32Array;
  allMet: number;
}

/** What a reading is over many boards. */
export interface ReadingSpread {
  mean: number;
  sd: number;
  p1: number;
  p5: number;
  p50: number;
  p95: number;
  p99: number;
  /** Boards that have no such reading. */
  without: number;
  /** Of all boards, the part that is as wanted; null where nothing is. */
  met: number | null;
  /** By part, largest first: its share of the variance. */
  shares: Record<string, number>;
  /** The worst that parts within their tolerance make of it together, either way. */
  corners: { least: number; most: number } | null;
}

export interface SpreadResult {
  boards: number;
  readings: (ReadingSpread | null)[];
  /** Of the level, dB. */
  levels: SpreadBand;
  /** Of the phase, degrees, on the turns of the nominal one; absent where it was not asked for. */
  phases?: SpreadBand;
  /** Boards that meet everything that is wanted, as a part of all; null where nothing is. */
  yield: number | null;
}

const GRID_POINTS = 200;
const GRID_TOLERANCE_DB = 0.06;

/** One net that readings are taken at. */
interface Place {
  net: string;
  reader: BoardReader;
  nominal: ResponseReader;
  trace: { re: Float64Array; im: Float64Array };
  levels: Float64Array;
}

/**
 * Many boards of one circuit, each part with a value of its own within its tolerance: what the level
 * and the readings are over all of them. Boards are drawn one after the other, the same for the same
 * seed, and results may be asked for at any time.
 */
export class Spread {
  drawn = 0;
  private readonly analysis: AcAnalysis;
  private readonly nominalValues: Float64Array;
  private readonly deviating: readonly Deviating[];
  private readonly grid: Float64Array;
  private readonly levelPlaces: Int32Array;
  private readonly places: Place[];
  private readonly levelTallies: Tally[];
  private readonly phaseTallies: Tally[];
  private readonly tallies: Tally[];
  private readonly offsets: number[];
  private readonly readings: Float64Array[];
  private readonly deviations: Float64Array;
  private readonly met: Uint32Array;
  private allMet = 0;

  /** @throws ReedError as `AcAnalysis` */
  constructor(private readonly request: SpreadRequest) {
    const { circuit, probe, boards, levelsAt = new Float64Array(0), readings, frames } = request;
    this.analysis = new AcAnalysis(circuit);
    this.nominalValues = this.analysis.values.slice();
    this.deviating = request.deviating(this.analysis);
    this.grid = this.gridOf();
    this.levelPlaces = Int32Array.from(levelsAt, (hz) =>
      this.grid.findIndex((x) => Math.abs(x / hz - 1) < 1e-8),
    );
    const nets = [...new Set([probe, ...readings.flatMap((r) => r.net ?? [])])];
    // What boards are compared with keeps the nominal values; the equations are prepared once.
    const nominal = new AcAnalysis(this.analysis);
    this.places = nets.map((net) => this.placeAt(net, nominal));
    this.levelTallies = Array.from(levelsAt, (_, k) => new Tally(boards, frames?.levels[k]));
    this.phaseTallies = request.phases
      ? Array.from(levelsAt, (_, k) => new Tally(boards, frames?.phases[k]))
      : [];
    this.tallies = readings.map((_, i) => new Tally(boards, frames?.readings[i]));
    this.readings = readings.map(() => new Float64Array(boards).fill(NaN));
    this.deviations = new Float64Array(boards * this.deviating.length);
    this.met = new Uint32Array(readings.length);
    this.solve();
    this.offsets = readings.map((reading) => this.nominalOf(reading) - this.read(reading) || 0);
  }

  /**
   * Draw and solve further boards.
   *
   * @throws ReedError as `AcAnalysis.solve`
   */
  draw(count: number): void {
    const { seed, boards, first = 0, kelvins = 0, readings } = this.request;
    const size = this.deviating.length;
    const last = Math.min(boards, this.drawn + count);
    for (; this.drawn < last; this.drawn++) {
      const own = this.deviations.subarray(this.drawn * size, (this.drawn + 1) * size);
      drawBoard(this.deviating, boardRandom(seed, first + this.drawn), kelvins, own);
      this.put(own);
      this.solve();
      this.count(readings);
    }
    this.put(new Float64Array(size));
  }

  /**
   * What the boards so far come to.
   *
   * @param why whether to work out as well what each part has to do with it, and the worst corners
   */
  result(why = true): SpreadResult {
    const { levelsAt: hz = new Float64Array(0), readings, phases } = this.request;
    const wanted = readings.some((r) => r.met);
    return {
      boards: this.drawn,
      readings: readings.map((_, i) => this.spreadOf(i, why)),
      levels: bandOf(hz, this.levelTallies),
      ...(phases ? { phases: bandOf(hz, this.phaseTallies) } : {}),
      yield: wanted && this.drawn > 0 ? this.allMet / this.drawn : null,
    };
  }

  /** Everything counted so far, to be added to what others count. */
  portion(): SpreadPortion {
    const counted = (tallies: readonly Tally[]) => tallies.map((t) => t.counted());
    return {
      boards: this.drawn,
      levels: counted(this.levelTallies),
      phases: counted(this.phaseTallies),
      readings: counted(this.tallies),
      met: this.met.slice(),
      allMet: this.allMet,
    };
  }

  /** The readings of one board that was drawn. */
  readingsOf(board: number): number[] {
    return this.readings.map((own) => own[board]);
  }

  private gridOf(): Float64Array {
    const { probe, levelsAt = [], readings, span, landmarks } = this.request;
    const asked = readings.flatMap(({ measure }) =>
      Object.entries(measure).flatMap(([field, value]) =>
        field.endsWith('Hz') && typeof value === 'number' && value > 0 ? [value] : [],
      ),
    );
    const also = [...levelsAt, ...asked];
    if (readings.length === 0) return Float64Array.from(new Set(also)).sort();
    return sampleResponse(responseOf(this.analysis, probe), {
      ...span,
      landmarks,
      also: Float64Array.from(also),
      maxPoints: GRID_POINTS,
      toleranceDb: GRID_TOLERANCE_DB,
    }).frequenciesHz;
  }

  private placeAt(net: string, analysis: AcAnalysis): Place {
    const { span, landmarks, context } = this.request;
    const nominal = new ResponseReader(responseOf(analysis, net), { span, landmarks, context });
    const count = this.grid.length;
    return {
      net,
      nominal,
      reader: new BoardReader(this.analysis, net, nominal, this.grid),
      trace: { re: new Float64Array(count), im: new Float64Array(count) },
      levels: new Float64Array(count),
    };
  }

  private put(deviations: Float64Array): void {
    const { analysis, nominalValues, deviating } = this;
    analysis.values.set(nominalValues);
    for (let i = 0; i < deviating.length; i++)
      analysis.values[deviating[i].parameter] *= 1 + deviations[i];
    analysis.update();
  }

  private solve(): void {
    for (const { net, trace, levels, reader } of this.places) {
      const { re, im } = this.analysis.voltage(net, this.grid, trace);
      for (let k = 0; k < levels.length; k++) levels[k] = levelDb(re[k], im[k]);
      reader.take(re, im, levels);
    }
  }

  private count(readings: readonly SpreadReading[]): void {
    const [{ levels, reader }] = this.places;
    this.levelPlaces.forEach((k, i) => this.levelTallies[i].add(levels[k]));
    this.phaseTallies.forEach((tally, i) => tally.add(reader.phaseAtPlace(this.levelPlaces[i])));
    let all = true;
    readings.forEach((reading, i) => {
      const value = this.read(reading) + this.offsets[i];
      this.readings[i][this.drawn] = value;
      if (Number.isFinite(value)) this.tallies[i].add(value);
      if (!reading.met) return;
      if (Number.isFinite(value) && reading.met(value)) this.met[i]++;
      else all = false;
    });
    if (all) this.allMet++;
  }

  /** A reading of the board that is in; NaN where it has none. */
  private read({ measure, net = this.request.probe }: SpreadReading): number {
    const place = this.places.find((p) => p.net === net)!;
    return valueOrNaN(place.reader, measure);
  }

  /** The reading of the nominal circuit, as carefully as any. */
  private nominalOf({ measure, net = this.request.probe }: SpreadReading): number {
    const place = this.places.find((p) => p.net === net)!;
    return valueOrNaN(place.nominal, measure);
  }

  private spreadOf(i: number, why: boolean): ReadingSpread | null {
    const tally = this.tallies[i];
    if (tally.count === 0) return null;
    const size = this.deviating.length;
    const told = why
      ? sharesOf(
          this.deviations.subarray(0, this.drawn * size),
          this.readings[i].subarray(0, this.drawn),
          size,
        )
      : undefined;
    return {
      ...figuresOf(tally),
      without: this.drawn - tally.count,
      met: this.request.readings[i].met ? this.met[i] / this.drawn : null,
      shares: told ? this.byPart(told.shares) : {},
      corners: told ? this.cornersOf(i, told.slopes) : null,
    };
  }

  private byPart(shares: readonly number[]): Record<string, number> {
    const sums = new Map<string, number>();
    this.deviating.forEach(({ part }, i) => sums.set(part, (sums.get(part) ?? 0) + shares[i]));
    return Object.fromEntries([...sums].sort((a, b) => b[1] - a[1]));
  }

  /** All parts at the ends of their tolerances that move a reading down, and up. */
  private cornersOf(i: number, slopes: readonly number[]): ReadingSpread['corners'] {
    const reading = this.request.readings[i];
    const at = (side: 1 | -1): number => {
      try {
        this.put(
          Float64Array.from(
            this.deviating,
            ({ tolerance }, p) => side * Math.sign(slopes[p]) * tolerance,
          ),
        );
        this.solve();
        return this.read(reading) + this.offsets[i];
      } catch (error) {
        if (error instanceof ReedError) return NaN;
        throw error;
      }
    };
    const [least, most] = [at(-1), at(1)];
    this.put(new Float64Array(this.deviating.length));
    return Number.isFinite(least) && Number.isFinite(most) ? { least, most } : null;
  }
}
