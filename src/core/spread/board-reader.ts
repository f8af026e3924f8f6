import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { emptyTrace, type ComplexTrace } from '@/core/analysis/ac/complex';
import { ReedError } from '@/core/errors';
import type { Extreme } from '@/core/response/extremes';
import type { Band } from '@/core/response/landmarks';
import type { Crossing, Reader, ResponseReader, Summit } from '@/core/response/reader';
import { levelDb, phaseDegrees } from '@/core/response/response';

/** Once so far under the level that an edge is looked at, a response is in its stop band, dB. */
const STOPPED_DB = 12;
/** A crossing is closed in on so often. */
const MOST_STEPS = 8;
/** A crossing is told to this many decibels. */
const CLOSE_DB = 1e-6;
/** Parts of an octave that are one place. */
const SAME = 1e-9;

/**
 * Two neighbours between which a level falls under a target, and the next one: the logarithms of
 * their frequencies and by how much each is above it, dB.
 */
interface Fall {
  a: number;
  ya: number;
  b: number;
  yb: number;
  c: number;
  yc: number;
}

/**
 * Reads numbers off one board after the other of a circuit whose nominal response has been read
 * carefully. Every board is solved over one grid; where a number lies is taken from there, the number
 * itself from the circuit at that frequency. What passes evenly, and on which turn a phase is, a
 * board has from the nominal response, from which it differs by little.
 */
export class BoardReader implements Reader {
  readonly span: Band;
  private levels: Float64Array;
  private re: Float64Array = new Float64Array(0);
  private im: Float64Array = new Float64Array(0);
  private readonly logs: Float64Array;
  private readonly even: Extreme | undefined;
  private readonly nominalPhases = new Map<number, number>();
  private readonly hz = new Float64Array(1);
  private readonly single = emptyTrace(1);
  /** Of the nominal response along the grid. */
  private alongNominal: Float64Array | undefined;

  /** @param grid frequencies that boards are solved at, rising */
  constructor(
    private readonly analysis: AcAnalysis,
    private readonly net: string,
    private readonly nominal: ResponseReader,
    private readonly grid: Float64Array,
  ) {
    this.span = { fromHz: grid[0], toHz: grid[grid.length - 1] };
    this.levels = new Float64Array(grid.length);
    this.logs = grid.map((hz) => Math.log(hz));
    this.even = evenPlateau(nominal);
  }

  /** The board that is read from now on: its response over the grid; its values are in the analysis. */
  take(re: Float64Array, im: Float64Array, levels: Float64Array): void {
    [this.re, this.im, this.levels] = [re, im, levels];
  }

  levelAt(hz: number): number {
    const k = this.placeOf(hz);
    if (k >= 0) return this.levels[k];
    const { re, im } = this.solvedAt(hz);
    return levelDb(re[0], im[0]);
  }

  phaseAt(hz: number): number {
    const k = this.placeOf(hz);
    let here: number;
    if (k >= 0) here = phaseDegrees(this.re[k], this.im[k]);
    else {
      const { re, im } = this.solvedAt(hz);
      here = phaseDegrees(re[0], im[0]);
    }
    let near = this.nominalPhases.get(hz);
    if (near === undefined) this.nominalPhases.set(hz, (near = this.nominal.phaseAt(hz)));
    return here + 360 * Math.round((near - here) / 360);
  }

  /** The phase at a place of the grid. */
  phaseAtPlace(k: number): number {
    this.alongNominal ??= this.nominal.phasesOf(this.grid, this.nominal.at(this.grid));
    const here = phaseDegrees(this.re[k], this.im[k]);
    return here + 360 * Math.round((this.alongNominal[k] - here) / 360);
  }

  highest(band: Band = this.span): Summit {
    const { hz, value, inside } = this.extreme(band, 1);
    return { hz, value, isPeak: inside };
  }

  lowest(band: Band): Extreme {
    const { hz, value } = this.extreme(band, -1);
    return { hz, value: -value };
  }

  plateau(): Extreme {
    if (this.even) return { hz: this.even.hz, value: this.levelAt(this.even.hz) };
    return this.highest(this.nominal.passed());
  }

  crossing(target: number, fromHz: number, side: 'upper' | 'lower', downDb?: number): Crossing {
    const { levels, grid } = this;
    const step = side === 'upper' ? 1 : -1;
    const end = side === 'upper' ? grid.length : -1;
    let k = this.above(fromHz);
    if (side === 'lower') k -= 1;
    let last = this.levelAt(fromHz);
    const nearest = k;
    const start = last;
    let at = -1;
    for (; k !== end; k += step) {
      const here = levels[k];
      if (here < target && last >= target) at = k;
      if (at >= 0 && here < target - STOPPED_DB) break;
      last = here;
    }
    if (at < 0) {
      const what = downDb === undefined ? `${target} dB` : `${downDb} dB under its reference`;
      throw new ReedError('range', `The level of a board never falls ${what}.`);
    }
    const isFirst = at === nearest;
    // At the end of the grid there is no further one.
    const next = Math.min(grid.length - 1, Math.max(0, at + step));
    const found: Fall = {
      a: isFirst ? Math.log(fromHz) : this.logs[at - step],
      ya: (isFirst ? start : levels[at - step]) - target,
      b: this.logs[at],
      yb: levels[at] - target,
      c: this.logs[next],
      yc: levels[next] - target,
    };
    return { hz: Math.exp(this.closedIn(found, target)), others: [] };
  }

  /**
   * Where between `a` and `b` the circuit itself crosses: from the parabola through the grid's points
   * by its slope, then by secants, and by halving where those would leave what is known to hold it.
   */
  private closedIn({ a, ya, b, yb, c, yc }: Fall, target: number): number {
    const chord = (yb - ya) / (b - a);
    // Newton's divided differences; without a third point the chord has to do.
    const bend = c === b ? 0 : ((yc - yb) / (c - b) - chord) / (c - a);
    // With t from a: ya + t (chord - bend (b - a)) + t^2 bend = 0, the root that the chord is near.
    const slope = chord - bend * (b - a);
    const root = Math.sqrt(slope * slope - 4 * bend * ya);
    let x = a + (-2 * ya) / (slope + Math.sign(slope) * root);
    if (!(x > Math.min(a, b) && x < Math.max(a, b))) x = a - ya / chord;
    let [before, yBefore] = [NaN, NaN];
    for (let i = 0; i < MOST_STEPS; i++) {
      const y = this.levelAt(Math.exp(x)) - target;
      if (Math.abs(y) < CLOSE_DB) break;
      const along = i === 0 ? slope + 2 * bend * (x - a) : (y - yBefore) / (x - before);
      [before, yBefore] = [x, y];
      if (y > 0) a = x;
      else b = x;
      x -= y / along;
      if (!(x > Math.min(a, b) && x < Math.max(a, b))) x = (a + b) / 2;
    }
    return x;
  }

  /**
   * The greatest of the level, or of it turned over, within a band. Written plainly and with results
   * of one shape: every board comes through here, several times.
   */
  private extreme({ fromHz, toHz }: Band, sign: 1 | -1) {
    const { levels, logs } = this;
    const first = this.above(fromHz);
    const after = this.above(toHz);
    let at = -1;
    let value = -Infinity;
    for (let k = first; k < after; k++) {
      const here = sign * levels[k];
      if (here > value) {
        at = k;
        value = here;
      }
    }
    const from = sign * this.levelAt(fromHz);
    const to = sign * this.levelAt(toHz);
    if (at < 0 || Math.max(from, to) >= value)
      return to > from
        ? { hz: toHz, value: to, inside: false }
        : { hz: fromHz, value: from, inside: false };
    if (at === 0 || at === logs.length - 1) return { hz: this.grid[at], value, inside: false };
    const [x0, x1, x2] = [logs[at - 1], logs[at], logs[at + 1]];
    const [y0, y2] = [sign * levels[at - 1], sign * levels[at + 1]];
    // The top of the parabola through the three, of which the middle one is the highest.
    const d1 = (value - y0) / (x1 - x0);
    const bend = ((y2 - value) / (x2 - x1) - d1) / (x2 - x0);
    if (!(bend < 0)) return { hz: this.grid[at], value, inside: true };
    const x = Math.min(x2, Math.max(x0, (x0 + x1) / 2 - d1 / (2 * bend)));
    return { hz: Math.exp(x), value: value + (x - x1) * (d1 + bend * (x - x0)), inside: true };
  }

  /** The circuit itself at one frequency; what was found before is gone then. */
  private solvedAt(hz: number): ComplexTrace {
    this.hz[0] = hz;
    return this.analysis.voltage(this.net, this.hz, this.single);
  }

  /** The first place of the grid above a frequency. */
  private above(hz: number): number {
    let [low, high] = [0, this.grid.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.grid[middle] <= hz) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  private placeOf(hz: number): number {
    const k = this.above(hz) - 1;
    return k >= 0 && Math.abs(this.grid[k] / hz - 1) < SAME ? k : -1;
  }
}

/** Where the nominal response passes evenly; nothing where its plateau is its highest point. */
function evenPlateau(nominal: ResponseReader): Extreme | undefined {
  const plateau = nominal.plateau();
  const summit = nominal.highest(nominal.passed());
  return summit.isPeak && Math.abs(Math.log(summit.hz / plateau.hz)) < 1e-3 ? undefined : plateau;
}
