import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { formatFixed, inWords } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import { HALF_POWER_DB } from './decibels';
import { closeIn, highestOf, localSummits, lowestOf, type Curve, type Extreme } from './extremes';
import { spaced, type Band, type Landmark } from './landmarks';
import { followedDegrees } from './phase';
import { levelDb, levelsDb, phaseDegrees, type Response } from './response';
import { findZero } from '@/core/numeric/root';
import { sampleResponse, type SampledResponse } from './sample';

/** What an ask tells about a response that is read. */
export interface ReadingContext {
  /** What is meant to pass: two bands about a notch; none where the ask does not say. */
  pass: readonly Band[];
  /** Where phase is counted from: two places about a notch, none where the ask does not say. */
  phaseFromHz: readonly number[];
  /** A band-pass passes in its middle, wherever parts have put that. */
  phaseFromMiddle?: boolean;
}

export interface ReaderOptions {
  /** Where peaks, plateaus and crossings are looked for. */
  span: Band;
  landmarks?: readonly Landmark[];
  context?: ReadingContext;
  /** The response over the span, where it was sampled already. */
  scanned?: SampledResponse;
}

/** Points of the scan that shows where to look. */
export const SCAN_POINTS = 600;

/** Frequencies are refined to this part of themselves. */
const RELATIVE = 1e-10;
/** An octave that changes by no more is flat, dB. */
const FLAT_DB = 1e-3;
/** An octave that changes by more is no plateau, dB. */
const PLATEAU_DB = 3;
/** A floor so far under the highest point is no plateau of what passes (a Q of 200 lifts 46 dB). */
const FLOOR_DB = 50;
/** Once so far under the level that an edge is looked at, a response is in its stop band, dB. */
const STOPPED_DB = 12;
/** More crossings than these are not worth naming. */
const MOST_NAMED = 8;

export interface Crossing {
  hz: number;
  /** Other crossings of the same level on the same side, rising. */
  others: number[];
}

/** The highest point, and whether the level falls to both sides of it. */
export interface Summit extends Extreme {
  isPeak: boolean;
}

/** What measures ask of a response. */
export type Reader = Pick<
  ResponseReader,
  'span' | 'levelAt' | 'phaseAt' | 'highest' | 'lowest' | 'plateau' | 'crossing'
>;

/**
 * Reads numbers off one response. An adaptive scan, closing in on its landmarks, finds where to look;
 * the number itself is found by asking the response again, never between plotted points.
 */
export class ResponseReader {
  readonly span: Band;
  private readonly landmarks: readonly Landmark[];
  private readonly context: ReadingContext;
  private scanned: SampledResponse | undefined;
  private levels: Float64Array | undefined;
  private phases: Float64Array | undefined;
  private plateauFound: Extreme | undefined;
  private readonly levelCurve = (hz: Float64Array) => levelsDb(this.response(hz));

  constructor(
    private readonly response: Response,
    { span, landmarks = [], context = { pass: [], phaseFromHz: [] }, scanned }: ReaderOptions,
  ) {
    this.span = span;
    this.landmarks = landmarks;
    this.context = context;
    this.scanned = scanned;
  }

  /** The response itself. */
  at(frequenciesHz: Float64Array): ComplexTrace {
    return this.response(frequenciesHz);
  }

  levelAt(hz: number): number {
    const { re, im } = this.response(Float64Array.of(hz));
    return levelDb(re[0], im[0]);
  }

  /** Phase in degrees, followed from where it is known. */
  phaseAt(hz: number): number {
    return this.phasesOf(Float64Array.of(hz), this.response(Float64Array.of(hz)))[0];
  }

  /** Phases of a trace of this response, on the turns that the reader knows. */
  phasesOf(
    frequenciesHz: Float64Array,
    { re, im }: { re: Float64Array; im: Float64Array },
  ): Float64Array {
    const x = this.scan().frequenciesHz;
    const along = this.followed();
    let k = 0;
    return frequenciesHz.map((hz, i) => {
      while (k > 0 && x[k] > hz) k--;
      while (k + 2 < x.length && x[k + 1] < hz) k++;
      const t = Math.min(1, Math.max(0, Math.log(hz / x[k]) / Math.log(x[k + 1] / x[k])));
      const near = along[k] + t * (along[k + 1] - along[k]);
      const here = phaseDegrees(re[i], im[i]);
      return here + 360 * Math.round((near - here) / 360);
    });
  }

  private scan(): SampledResponse {
    this.scanned ??= sampleResponse(this.response, {
      ...this.span,
      landmarks: this.landmarks,
      maxPoints: SCAN_POINTS,
    });
    return this.scanned;
  }

  private scanLevels(): Float64Array {
    this.levels ??= levelsDb(this.scan());
    return this.levels;
  }

  private followed(): Float64Array {
    if (!this.phases) {
      const x = this.scan().frequenciesHz;
      const from = this.phaseAnchors();
      const split = from.length > 1 ? nearestIndex(x, Math.sqrt(from[0] * from[1])) : undefined;
      this.phases = followedDegrees(
        this.scan(),
        from.map((hz) => nearestIndex(x, hz)),
        split,
      );
    }
    return this.phases;
  }

  private phaseAnchors(): readonly number[] {
    const { phaseFromHz, phaseFromMiddle } = this.context;
    if (phaseFromMiddle) {
      try {
        const { fromHz, toHz } = this.halfPowerBand();
        return [Math.sqrt(fromHz * toHz)];
      } catch {
        // One-sided: counted from where the ask has its middle.
      }
    }
    return phaseFromHz.length > 0 ? phaseFromHz : [this.plateau().hz];
  }

  /** Scan points within a band, its ends among them; a band that leaves the span is scanned anew. */
  private within({ fromHz, toHz }: Band): { x: Float64Array; levels: Float64Array } {
    if (fromHz < this.span.fromHz || toHz > this.span.toHz) {
      const { landmarks } = this;
      const own = sampleResponse(this.response, {
        fromHz,
        toHz,
        landmarks,
        maxPoints: SCAN_POINTS,
      });
      return { x: own.frequenciesHz, levels: levelsDb(own) };
    }
    const { frequenciesHz } = this.scan();
    const levels = this.scanLevels();
    const inside = Array.from(frequenciesHz.keys()).filter(
      (k) => frequenciesHz[k] > fromHz && frequenciesHz[k] < toHz,
    );
    const ends = this.levelCurve(Float64Array.of(fromHz, toHz));
    return {
      x: Float64Array.from([fromHz, ...inside.map((k) => frequenciesHz[k]), toHz]),
      levels: Float64Array.from([ends[0], ...inside.map((k) => levels[k]), ends[1]]),
    };
  }

  private passBands(): Band[] {
    const { fromHz, toHz } = this.span;
    return this.context.pass
      .map((b) => ({ fromHz: Math.max(fromHz, b.fromHz), toHz: Math.min(toHz, b.toHz) }))
      .filter((b) => b.toHz > b.fromHz);
  }

  /** Highest level over a band, by default the whole span. */
  highest(band: Band = this.span): Summit {
    const { x, levels } = this.within(band);
    const { hz, value } = highestOf(this.levelCurve, x, { values: levels });
    const isPeak = value > Math.max(levels[0], levels[levels.length - 1]) + FLAT_DB;
    if (isPeak) return { hz, value, isPeak };
    // Flat towards an end: of the places as high, the one nearest the middle of what is looked at.
    const middle = Math.log(this.span.fromHz * this.span.toHz) / 2;
    let [at, away] = [hz, Infinity];
    x.forEach((f, k) => {
      const off = Math.abs(Math.log(f) - middle);
      if (levels[k] > value - FLAT_DB && off < away) [at, away] = [f, off];
    });
    return { hz: at, value, isPeak };
  }

  /**
   * Between the half-power points about the highest point.
   *
   * @throws ReedError `range` where there is none on one side
   */
  halfPowerBand(): Band {
    const { hz, value } = this.highest();
    const edge = (side: 'lower' | 'upper') => this.crossing(value - HALF_POWER_DB, hz, side).hz;
    return { fromHz: edge('lower'), toHz: edge('upper') };
  }

  lowest(band: Band): Extreme {
    const { x, levels } = this.within(band);
    return lowestOf(this.levelCurve, x, { values: levels });
  }

  /** The band that is meant to pass, from its first to its last frequency; the span where none is named. */
  passed(): Band {
    const bands = this.passBands();
    if (bands.length === 0) return this.span;
    return { fromHz: bands[0].fromHz, toHz: bands[bands.length - 1].toHz };
  }

  /**
   * Level and place of what passes evenly: of the octaves that are flat the highest, else the one
   * that changes least; within the ask's pass band, where there is one. A band that has no even
   * octave is read at its highest point.
   */
  plateau(): Extreme {
    this.plateauFound ??= this.findPlateau();
    return this.plateauFound;
  }

  private findPlateau(): Extreme {
    const bands = this.passBands();
    const looked = bands.length > 0 ? bands : [this.span];
    const floor = this.highest().value - FLOOR_DB;
    let best = { change: Infinity, level: -Infinity, hz: NaN };
    for (const band of looked) {
      const { x, levels } = this.within(band);
      for (let i = 0, j = 0; i < x.length; i++) {
        while (j < x.length && x[j] < 2 * x[i]) j++;
        if (j === x.length) break;
        const octave = levels.subarray(i, j + 1);
        const highest = octave.reduce((a, b) => Math.max(a, b));
        if (highest < floor) continue;
        const change = highest - octave.reduce((a, b) => Math.min(a, b));
        const flat = change < FLAT_DB;
        const better = flat
          ? !(best.change < FLAT_DB) || highest > best.level + 1e-6
          : change < best.change;
        if (better) best = { change, level: highest, hz: x[i] * Math.SQRT2 };
      }
    }
    if (!(best.change < PLATEAU_DB)) {
      const tops = looked.map((band) => this.highest(band));
      return tops.reduce((a, b) => (b.value > a.value ? b : a));
    }
    const hz = best.change < FLAT_DB ? best.hz : this.evenest(best.hz, looked);
    return { hz, value: this.levelAt(hz) };
  }

  /** The middle of the octave that changes least, near one found on the scan. */
  private evenest(nearHz: number, bands: readonly Band[]): number {
    const change = (hz: number) => {
      const levels = this.levelCurve(spaced(hz / Math.SQRT2, hz * Math.SQRT2, 15));
      return levels.reduce((a, b) => Math.max(a, b)) - levels.reduce((a, b) => Math.min(a, b));
    };
    const { hz } = closeIn(
      (x) => x.map((f) => -change(f)),
      nearHz / 1.15,
      nearHz * 1.15,
      FLAT_DB / 10,
    );
    const band = bands.find((b) => nearHz > b.fromHz && nearHz < b.toHz);
    if (!band) return hz;
    return Math.min(band.toHz / Math.SQRT2, Math.max(band.fromHz * Math.SQRT2, hz));
  }

  /**
   * Where the level falls through `target` for good, going outwards from a place above it: the last
   * crossing before the response is well down. Ripple that dips below the target lies inside.
   *
   * @throws ReedError `range` where it never does within the span
   */
  crossing(target: number, fromHz: number, side: 'upper' | 'lower', downDb?: number): Crossing {
    const { x, levels } = this.outward(target, fromHz, side);
    const refuse = () => this.noEdge(downDb, side, target);
    if (levels[0] < target) throw refuse();
    const all: { at: number; falls: boolean }[] = [];
    let chosen = -1;
    let stopped = false;
    for (let k = 1; k < x.length; k++) {
      if (levels[k] >= target !== levels[k - 1] >= target) {
        all.push({ at: k, falls: levels[k] < target });
        if (levels[k] < target && !stopped) chosen = all.length - 1;
      }
      if (chosen >= 0 && levels[k] < target - STOPPED_DB) stopped = true;
    }
    if (chosen < 0) throw refuse();
    const over = (u: number) => this.levelAt(Math.exp(u)) - target;
    const solve = ({ at }: { at: number }) => {
      const [a, b] = [Math.log(x[at - 1]), Math.log(x[at])].sort((p, q) => p - q);
      const [atA, atB] = [over(a), over(b)];
      // A point of the scan may stand on the target to rounding, and asked again on its other side.
      if (atA > 0 === atB > 0) return Math.exp(Math.abs(atA) < Math.abs(atB) ? a : b);
      return Math.exp(findZero(over, a, b, RELATIVE / 2));
    };
    const others = all.filter((_, i) => i !== chosen).slice(0, MOST_NAMED);
    return { hz: solve(all[chosen]), others: others.map(solve).sort((a, b) => a - b) };
  }

  /** Points from a place outwards, with every summit and dip that reaches across the target. */
  private outward(
    target: number,
    fromHz: number,
    side: 'upper' | 'lower',
  ): { x: Float64Array; levels: Float64Array } {
    const scan = this.scan().frequenciesHz;
    const known = this.scanLevels();
    const order = Array.from(scan.keys()).filter((k) =>
      side === 'upper' ? scan[k] > fromHz : scan[k] < fromHz,
    );
    if (side === 'lower') order.reverse();
    const x = Float64Array.from([fromHz, ...order.map((k) => scan[k])]);
    const levels = Float64Array.from([this.levelAt(fromHz), ...order.map((k) => known[k])]);
    this.reachAcross(this.levelCurve, x, levels, target);
    const turned: Curve = (hz) => this.levelCurve(hz).map((y) => -y);
    const dips = levels.map((y) => -y);
    this.reachAcross(turned, x, dips, -target);
    return { x, levels: dips.map((y) => -y) };
  }

  /** Put every summit that reaches across the target in the place of the point beside it. */
  private reachAcross(curve: Curve, x: Float64Array, values: Float64Array, target: number): void {
    for (const { at, between, reach } of localSummits(x, values)) {
      if (at === 0 || values[at] >= target || reach < target) continue;
      const summit = closeIn(curve, ...between);
      [x[at], values[at]] = [summit.hz, summit.value];
    }
  }

  private noEdge(downDb: number | undefined, side: 'upper' | 'lower', target: number): ReedError {
    const where = side === 'upper' ? 'above' : 'below';
    const to =
      downDb === undefined
        ? `to ${formatFixed(target, 2)}\u00a0dB`
        : `${inWords(downDb, 'decibels')} ${where} its reference (${formatFixed(target + downDb, 2)}\u00a0dB)`;
    return new ReedError(
      'range',
      `The level never falls ${to}, within ${inWords(this.span.fromHz, 'hertz')} to ${inWords(this.span.toHz, 'hertz')}.`,
    );
  }
}

function nearestIndex(x: Float64Array, at: number): number {
  let best = 0;
  x.forEach((f, k) => {
    if (Math.abs(Math.log(f / at)) < Math.abs(Math.log(x[best] / at))) best = k;
  });
  return best;
}
