import { productOf } from '@/core/circuit/stamper';
import { ReedError, stopIfAsked } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import type { AcAnalysis, TransferBatch } from '../ac/ac';
import type { ComplexTrace } from '../ac/complex';
import { slopeShifts, type SlopeShift } from './moving-point';

/** What one part value does to a response, per unit of relative change (d / d ln value). */
export interface PartSensitivity {
  part: string;
  parameter: string;
  /** dB for a change by a factor e; times 0.01 for one percent. By frequency. */
  levelDb: Float64Array;
  phaseDegrees: Float64Array;
}

/** How a response goes on along frequency: exact, from dV/ds = -y^T C x (no differences of phase). */
export interface Slopes {
  /** d level / d ln f, dB. */
  levelByLogF: Float64Array;
  groupDelaySeconds: Float64Array;
}

const DB_PER_NEPER = 20 / Math.LN10;
const DEGREES = 180 / Math.PI;

/**
 * One net of a prepared circuit and all that moves it, from one direct and one transposed solve a
 * frequency: dV/dp = -y^T (dA/dp) x (S. W. Director, R. A. Rohrer, "The Generalized Adjoint Network
 * and Network Sensitivities", IEEE Trans. Circuit Theory CT-16, 1969). It holds for the values that
 * the analysis has when this is made.
 */
export class Adjoint {
  private readonly unknown: number;
  private readonly own: readonly number[];
  private readonly shifts: readonly SlopeShift[];

  /** @throws ReedError `circuit` for the ground net */
  constructor(
    private readonly analysis: AcAnalysis,
    private readonly probe: string,
    private readonly signal?: AbortSignal,
  ) {
    this.unknown = analysis.unknownOf(probe);
    if (this.unknown < 0)
      throw new ReedError('circuit', `“${probe}” is the ground net: nothing moves it.`, {
        net: probe,
      });
    this.own = analysis.system.entries.map((entry) => productOf(entry, analysis.values));
    this.shifts = slopeShifts(analysis);
  }

  /**
   * What part values do to level and phase. What a value does to the devices by moving their
   * operating point is counted in.
   *
   * @param only indices of the values that are asked for; without it, all independent ones that
   *   bear on the response
   */
  parts(frequenciesHz: Float64Array, only?: readonly number[]): PartSensitivity[] {
    const { entries, parameters } = this.analysis.system;
    const asked = only ?? this.bearing();
    const found = asked.map((i): PartSensitivity => ({
      part: parameters[i].part,
      parameter: parameters[i].name,
      levelDb: new Float64Array(frequenciesHz.length),
      phaseDegrees: new Float64Array(frequenciesHz.length),
    }));
    /** What a relative change of any value, derived ones included, makes of those asked for. */
    const shares = this.sharesOf(asked);
    this.each(frequenciesHz, ({ from, count, omega }, relative) => {
      const add = (parameter: number, resistive: number, reactive: number) => {
        const { re, im } = relative.lanes;
        for (const { place, share } of shares[parameter]) {
          const { levelDb, phaseDegrees } = found[place];
          for (let k = 0; k < count; k++) {
            const s = reactive * omega[from + k];
            levelDb[from + k] += share * (re[k] * resistive - im[k] * s) * DB_PER_NEPER;
            phaseDegrees[from + k] += share * (im[k] * resistive + re[k] * s) * DEGREES;
          }
        }
      };
      entries.forEach(({ row, column, factors, reactive }, e) => {
        if (!factors.some(([parameter]) => shares[parameter].length > 0)) return;
        relative.at(row, column);
        for (const [parameter, power] of factors) {
          const change = power * this.own[e];
          add(parameter, reactive ? 0 : change, reactive ? change : 0);
        }
      });
      for (const { parameter, slots } of this.shifts) {
        if (shares[parameter].length === 0) continue;
        for (const { row, column, resistive, reactive } of slots) {
          relative.at(row, column);
          add(parameter, resistive, reactive);
        }
      }
    });
    return found;
  }

  /** Independent values that bear on the response: not those of noise alone. */
  bearing(): number[] {
    const { entries, parameters, entangled, sources, noise } = this.analysis.system;
    const inEntries = new Set(entries.flatMap((e) => e.factors.map(([parameter]) => parameter)));
    const inNoise = new Set(
      noise.flatMap(({ density, corner }) =>
        [density.factors.map(([p]) => p), corner ?? []].flat(),
      ),
    );
    const inLaws = entangled.flatMap(({ elements, own }) => (elements.length > 0 ? own : []));
    const used = new Set([
      ...inEntries,
      ...sources.flatMap(({ dc }) => (dc !== undefined && this.shifts.length > 0 ? [dc] : [])),
      ...inLaws.filter((parameter) => !inNoise.has(parameter)),
    ]);
    for (const [parameter, by] of this.analysis.slopes)
      if (used.has(parameter)) for (const [own] of by) used.add(own);
    return [...parameters.keys()].filter((i) => used.has(i) && !parameters[i].by);
  }

  /** By value: the places of those asked for that it follows from, and d ln(it) / d ln(that). */
  private sharesOf(asked: readonly number[]): readonly (readonly Share[])[] {
    const { system, values, slopes } = this.analysis;
    const shares = new Array<readonly Share[]>(system.parameters.length).fill(NO_SHARES);
    asked.forEach((parameter, place) => (shares[parameter] = [{ place, share: 1 }]));
    for (const [derived, by] of slopes)
      for (const [own, slope] of by) {
        const place = asked.indexOf(own);
        if (place < 0) continue;
        const share = (slope * values[own]) / values[derived];
        shares[derived] = [...shares[derived], { place, share }];
      }
    return shares;
  }

  slopes(frequenciesHz: Float64Array): Slopes {
    const { rows, columns, c } = this.analysis.matrix;
    // d ln V / d omega = -im + j re of what C does to ln V.
    const re = new Float64Array(frequenciesHz.length);
    const im = new Float64Array(frequenciesHz.length);
    this.each(frequenciesHz, ({ from, count }, relative) => {
      for (let slot = 0; slot < c.length; slot++) {
        if (c[slot] === 0) continue;
        const { lanes } = relative;
        relative.at(rows[slot], columns[slot]);
        for (let k = 0; k < count; k++) {
          re[from + k] += lanes.re[k] * c[slot];
          im[from + k] += lanes.im[k] * c[slot];
        }
      }
    });
    return {
      levelByLogF: im.map((x, k) => -x * 2 * Math.PI * frequenciesHz[k] * DB_PER_NEPER),
      groupDelaySeconds: re.map((x) => -x),
    };
  }

  /** @throws ReedError `circuit` where nothing arrives that could be moved */
  private refuseSilence({ from, count, width, xRe, xIm }: TransferBatch, hz: Float64Array): void {
    for (let k = 0; k < count; k++) {
      const at = this.unknown * width + k;
      if (xRe[at] !== 0 || xIm[at] !== 0) continue;
      throw new ReedError(
        'circuit',
        `Nothing arrives at “${this.probe}” at ${inWords(hz[from + k], 'hertz')}, so that no part can move its level: give a source an amplitude, or probe a net that it reaches.`,
        { net: this.probe },
      );
    }
  }

  private each(
    frequenciesHz: Float64Array,
    visit: (batch: TransferBatch, relative: Relative) => void,
  ): void {
    this.analysis.eachTransfer(this.unknown, frequenciesHz, (batch) => {
      stopIfAsked(this.signal);
      this.refuseSilence(batch, frequenciesHz);
      visit(batch, new Relative(batch, this.unknown));
    });
  }
}

/** How a value follows one of those that are asked for. */
interface Share {
  /** Among those asked for. */
  place: number;
  /** d ln(value) / d ln(the one asked for). */
  share: number;
}
const NO_SHARES: readonly Share[] = [];

/** What a unit added to an entry of the matrix does to ln V: -y[row] x[column] / V. */
class Relative {
  /** By frequency of the batch; overwritten by every question. */
  readonly lanes: ComplexTrace;
  /** -1 / V. */
  private readonly scale: ComplexTrace;

  constructor(
    private readonly batch: TransferBatch,
    unknown: number,
  ) {
    const { count, width, xRe, xIm } = batch;
    this.lanes = { re: new Float64Array(count), im: new Float64Array(count) };
    this.scale = { re: new Float64Array(count), im: new Float64Array(count) };
    for (let k = 0; k < count; k++) {
      const [re, im] = [xRe[unknown * width + k], xIm[unknown * width + k]];
      const size = re * re + im * im;
      this.scale.re[k] = -re / size;
      this.scale.im[k] = im / size;
    }
  }

  at(row: number, column: number): void {
    const { count, width, yRe, yIm, xRe, xIm } = this.batch;
    const { lanes, scale } = this;
    const [r, c] = [row * width, column * width];
    for (let k = 0; k < count; k++) {
      const re = yRe[r + k] * xRe[c + k] - yIm[r + k] * xIm[c + k];
      const im = yRe[r + k] * xIm[c + k] + yIm[r + k] * xRe[c + k];
      lanes.re[k] = re * scale.re[k] - im * scale.im[k];
      lanes.im[k] = re * scale.im[k] + im * scale.re[k];
    }
  }
}
