import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import { ReedError } from '@/core/errors';
import { DEGREES_PER_DB } from '@/core/response/decibels';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { phaseDegrees } from '@/core/response/response';
import { squares } from './belief';
import type { Movable } from './movable';
import type { View } from './question';

/** A prediction so far below the lowest point that was measured is as good as silence. */
const BELOW_LOWEST_DB = 40;
/** At first, what lies so far below the middle of its neighbours is drowned. */
const SOFT_DB = 10;
/** Neighbours to each side, as a part of all points. */
const NEIGHBOURS = 0.1;

/** A curve and what each movable value does to it, for a factor e; in units of the noise, level first, then phase. */
export interface ViewCurve {
  values: Float64Array;
  columns: Float64Array[];
}

/** Values go no further than this, as a logarithm of what they should be. */
export const FARTHEST = Math.log(1e4);

/**
 * What one take of a circuit would be like for values that are off: by logarithms, one a movable. All is
 * counted in units of the noise, and of the level only what is left when its mean is taken out, as far
 * as nobody knows at which level the source stood.
 */
export class ViewPrediction {
  private readonly parameters: readonly number[];
  private readonly hz: Float64Array;
  /** Powers that drown all that is less, in the take and in the prediction, as the take counts levels. */
  private readonly floors: Float64Array;
  private readonly measured: Float64Array;
  readonly points: number;
  /** What a decibel more of all does; nothing where the level is known. */
  readonly gain: Float64Array | undefined;
  /** Of the mean, the part that is taken out, and of what stands too high the part that is the source’s. */
  private readonly meanOut: number;
  private readonly ofSource: number;

  constructor(
    private readonly analysis: AcAnalysis,
    private readonly view: View,
    readonly movables: readonly Movable[],
    soft = false,
    private readonly nominal = analysis.values.slice(),
  ) {
    const { take, noise, gainSdDb } = view;
    this.parameters = movables.flatMap((m) => m.parameters);
    this.hz = Float64Array.from(take.frequenciesHz);
    const lowest = Math.min(...take.levelDb) - BELOW_LOWEST_DB;
    this.floors = Float64Array.from(
      soft ? middles(take.levelDb) : take.levelDb,
      (db) => 10 ** ((soft ? db - SOFT_DB : lowest) / 10),
    );
    this.measured = Float64Array.from(
      take.levelDb,
      (db, k) => 10 * Math.log10(10 ** (db / 10) + this.floors[k]),
    );
    this.points = this.hz.length * (take.phaseDegrees ? 2 : 1);
    const byNoise = new Float64Array(this.points);
    for (let k = 0; k < this.hz.length; k++) byNoise[k] = 1 / noise.levelDb[k];
    this.gain = gainSdDb === Infinity ? byNoise : undefined;
    // The root of the inverse of 1 + s² g g', g the noise's inverses: what a level that is known to s leaves.
    const known = 1 / (1 + gainSdDb ** 2 * squares(byNoise));
    this.meanOut = 1 - Math.sqrt(known);
    this.ofSource = 1 - known;
  }

  /** The same circuit held against another take of it, or one of other noise. */
  against(other: Pick<View, 'take' | 'noise'>, soft = false): ViewPrediction {
    const { analysis, view, movables, nominal } = this;
    const { take, noise } = other;
    return new ViewPrediction(analysis, { ...view, take, noise }, movables, soft, nominal);
  }

  /** The same with what lies far below its neighbours drowned. */
  softened(): ViewPrediction {
    return this.against(this.view, true);
  }

  /** By point, how many decibels a unit is, or as much of a phase. */
  inDb(): Float64Array {
    const { levelDb, phaseDegrees: degrees } = this.view.noise;
    const all = new Float64Array(this.points);
    all.set(levelDb);
    if (degrees && this.points > levelDb.length)
      all.set(
        degrees.map((d) => d / DEGREES_PER_DB),
        levelDb.length,
      );
    return all;
  }

  /** Take less prediction, in units of the noise; undefined where the circuit has no such curve. */
  misfit(x: Float64Array): Float64Array | undefined {
    return guarded(() => this.misfitNow(x));
  }

  /** The same with slopes: what each value takes away from it. */
  sloped(x: Float64Array): ViewCurve | undefined {
    return guarded(() => {
      const values = this.misfitNow(x);
      const powers = powersOf(this.analysis.voltage(this.view.probe, this.hz));
      const gain = this.gainOf(powers);
      // Of what the floor drowns, values move little.
      const above = powers.map((power, k) => power / (power + this.floors[k] / gain));
      const adjoint = new Adjoint(this.analysis, this.view.probe);
      const slopes = adjoint.parts(this.hz, this.parameters);
      let next = 0;
      const columns = this.movables.map(({ parameters }) => {
        if (parameters.length === 0) return new Float64Array(this.points);
        const { levelDb, phaseDegrees: degrees } = slopes[next++];
        for (let more = 1; more < parameters.length; more++, next++) {
          addTo(levelDb, slopes[next].levelDb);
          addTo(degrees, slopes[next].phaseDegrees);
        }
        for (let k = 0; k < levelDb.length; k++) levelDb[k] *= above[k];
        return this.whitened(levelDb, degrees);
      });
      return { values, columns };
    });
  }

  /** By how much the take stands above the prediction, dB. */
  gainDb(x: Float64Array): number {
    this.moveTo(x);
    const levels = this.levels(this.analysis.voltage(this.view.probe, this.hz));
    const off = levels.map((db, k) => this.measured[k] - db);
    return this.ofSource * weightedMean(off, this.view.noise.levelDb);
  }

  /** The value of a movable that is off by so much; nothing of one that this circuit has not. */
  valueAt(movable: number, x: number): number | undefined {
    const [parameter] = this.movables[movable].parameters as readonly (number | undefined)[];
    return parameter === undefined ? undefined : this.nominal[parameter] * Math.exp(x);
  }

  private misfitNow(x: Float64Array): Float64Array {
    this.moveTo(x);
    const { re, im } = this.analysis.voltage(this.view.probe, this.hz);
    const { measured } = this;
    const { phaseDegrees: degrees } = this.view.take;
    const levels = this.levels({ re, im }).map((db, k) => measured[k] - db);
    if (!degrees) return this.whitened(levels);
    const turns = levels.map((_, k) => degrees[k] - phaseDegrees(re[k], im[k]));
    // A take of the other polarity is as good a take.
    const along = turns.reduce((sum, d) => sum + Math.cos((d * Math.PI) / 180), 0);
    return this.whitened(
      levels,
      turns.map((d) => wrapped(along < 0 ? d - 180 : d)),
    );
  }

  private levels(trace: ComplexTrace): Float64Array {
    const powers = powersOf(trace);
    const gain = this.gainOf(powers);
    return powers.map((power, k) => 10 * Math.log10(power + this.floors[k] / gain));
  }

  /** By how much the take stands above these powers, as most of its points have it; as a power. */
  private gainOf(powers: Float64Array): number {
    const { levelDb } = this.view.take;
    const gains = powers.map((power, k) => levelDb[k] - 10 * Math.log10(power)).sort();
    return 10 ** (gains[gains.length >> 1] / 10);
  }

  private moveTo(x: Float64Array): void {
    const { values } = this.analysis;
    values.set(this.nominal);
    this.movables.forEach(({ parameters }, i) => {
      for (const parameter of parameters) values[parameter] *= Math.exp(x[i]);
    });
    this.analysis.update();
  }

  private whitened(levelDb: Float64Array, degrees?: Float64Array): Float64Array {
    const { noise } = this.view;
    const mean = this.meanOut * weightedMean(levelDb, noise.levelDb);
    const count = levelDb.length;
    const all = new Float64Array(this.points);
    for (let k = 0; k < count; k++) all[k] = (levelDb[k] - mean) / noise.levelDb[k];
    if (noise.phaseDegrees && degrees)
      for (let k = 0; k < count; k++) all[count + k] = degrees[k] / noise.phaseDegrees[k];
    return all;
  }
}

/** Of each point and its neighbours, the middle level. */
function middles(levels: readonly number[]): number[] {
  const reach = Math.ceil(NEIGHBOURS * levels.length);
  return levels.map((_, k) => {
    const near = levels.slice(Math.max(0, k - reach), k + reach + 1).sort((a, b) => a - b);
    return near[near.length >> 1];
  });
}

const powersOf = ({ re, im }: ComplexTrace): Float64Array =>
  re.map((v, k) => v * v + im[k] * im[k]);

/** What cannot be solved with such values explains nothing; what is wrong otherwise is said. */
function guarded<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof ReedError) return undefined;
    throw error;
  }
}

function weightedMean(values: Float64Array, noise: Float64Array): number {
  let [sum, weight] = [0, 0];
  for (let k = 0; k < values.length; k++) {
    const w = 1 / noise[k] ** 2;
    sum += w * values[k];
    weight += w;
  }
  return sum / weight;
}

function addTo(sum: Float64Array, more: Float64Array): void {
  for (let k = 0; k < sum.length; k++) sum[k] += more[k];
}

const wrapped = (degrees: number): number => degrees - 360 * Math.round(degrees / 360);
