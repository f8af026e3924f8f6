import { DB_PER_NEPER } from '@/core/response/decibels';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { Adjoint, type PartSensitivity } from '@/core/analysis/sensitivity/adjoint';
import type { Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { REFERENCE_PASCALS } from '../air';
import { GROUND_NET, AMP_NET, type SpeakerDocument } from '../document';
import { SolvedSpeaker } from '../solved-speaker';
import { DRIVE, speakerCircuit } from '../speaker-circuit';
import { heardAround } from '../heard-around';
import { prepareUnit } from '../unit';
import { evenly, LOAD_BAND } from './measure';
import { shapedWay, type ShapedWay } from './shaped-way';
import { trackedPair, wrapped, type TrackedPair } from './tracked-pair';

/** The value of a part that a search may change. */
const MAIN = { resistor: 'ohms', capacitor: 'farads', inductor: 'henries' } as const;
export type TunedKind = keyof typeof MAIN;

/** Whether parts of a kind have a value that can be tuned. */
export const hasMainValue = (kind: string): kind is TunedKind => kind in MAIN;

export function mainValue(part: Part): { kind: TunedKind; name: string; value: number } {
  if (part.kind === 'resistor') return { kind: part.kind, name: MAIN.resistor, value: part.ohms };
  if (part.kind === 'capacitor')
    return { kind: part.kind, name: MAIN.capacitor, value: part.farads };
  if (part.kind === 'inductor')
    return { kind: part.kind, name: MAIN.inductor, value: part.henries };
  throw new ReedError(
    'circuit',
    `The part ${quoted(part.id)} is no resistor, capacitor or coil: its value cannot be tuned.`,
    { part: part.id },
  );
}

export const withMainValue = (part: Part, value: number): Part => ({
  ...part,
  [mainValue(part).name]: value,
});

/** Slopes by the logarithms of the free values: one column a value, of ways one a way and value. */
export interface Slopes {
  tried: Tried;
  levels: Float64Array[];
  logOhms: Float64Array[];
  ways: Float64Array[][];
}

const BAND_POINTS = 96;
const LOAD_POINTS = 72;
const NOWHERE = new Float64Array(0);
/** An amplifier without resistance gets so little that its current can be told from its voltage. */
const SOME_OHMS = 1e-4;
const RADIANS = Math.PI / 180;

/** What a target asks for, at values that are tried. */
export interface Tried {
  /** Levels of the sum over the band less their mean, dB. */
  levels: Float64Array;
  /** Size of the load over its band, ohms. */
  ohms: Float64Array;
  /**
   * How far ways that have a shape to follow lie from it, dB, and pairs that are to stay in phase from
   * that, degrees, over the band.
   */
  ways: readonly Float64Array[];
}

/**
 * The true circuit of a speaker with the values of some of its parts to be tried, and their slopes
 * from transposed solutions. Impedances that were measured are stood for by their fitted circuits; by
 * how much the levels and loads of the measured ones lie elsewhere is taken over from the values that
 * `settle` was last told.
 */
export class SpeakerTrial {
  readonly free: readonly Part[];
  readonly bandHz: Float64Array;
  readonly loadHz: Float64Array;
  private readonly analysis: AcAnalysis;
  private readonly places: readonly number[];
  private readonly sourceOhms: number;
  /** Nets whose voltages sound, and the pressure that a volt of each makes over the band. */
  private readonly sounding: { net: string; re: Float64Array; im: Float64Array }[];
  private readonly moreDb: Float64Array;
  /** The ways that have a shape to follow, and pairs of ways that are to stay in phase. */
  private readonly shaped: readonly ShapedWay[];
  private readonly tracked: readonly TrackedPair[];
  /** Both, as they are judged: where each counts, and how far it may depart. */
  readonly followed: readonly { counts: readonly boolean[]; within: number }[];
  private readonly moreOhms: Float64Array;

  constructor(readonly document: SpeakerDocument) {
    const { target, network, drive } = document;
    if (!target)
      throw new ReedError('document', 'The speaker has no target: say what it is to be tuned to.');
    this.free = target.free.map((id) => network.find((p) => p.id === id)!);
    this.free.forEach(mainValue);
    this.bandHz = evenly(target.fromHz, target.toHz, BAND_POINTS);
    // Where no least load is asked for, none is looked at.
    this.loadHz =
      target.leastOhms > 0 ? evenly(LOAD_BAND.fromHz, LOAD_BAND.toHz, LOAD_POINTS) : NOWHERE;
    this.sourceOhms = Math.max(SOME_OHMS, drive.sourceOhms);
    const units = document.drivers.map(prepareUnit);
    const driven = { ...document, drive: { ...drive, sourceOhms: this.sourceOhms } };
    this.analysis = new AcAnalysis(speakerCircuit(driven));
    const { places } = this.analysis.system;
    this.places = this.free.map((p) => places.get(p.id)!.get(mainValue(p).name)!);
    this.sounding = this.soundingNets(
      units.map((unit, i) => {
        const { drivers, listen, surroundings } = document;
        return (hz: number) => heardAround(unit, drivers[i].place, listen, hz, surroundings);
      }),
    );
    this.shaped = (target.ways ?? []).flatMap((wanted) => shapedWay(document, wanted, this.bandHz));
    this.tracked = (target.phases ?? []).flatMap((wanted) =>
      trackedPair(document, wanted, this.bandHz),
    );
    this.followed = [...this.shaped, ...this.tracked];
    this.moreDb = new Float64Array(BAND_POINTS);
    this.moreOhms = new Float64Array(this.loadHz.length).fill(1);
  }

  /** Logarithms of the present values of the free parts. */
  start(): Float64Array {
    return Float64Array.from(this.free, (p) => Math.log(mainValue(p).value));
  }

  /** The document with values put in. @param x their logarithms */
  with(x: ArrayLike<number>): SpeakerDocument {
    return {
      ...this.document,
      network: this.document.network.map((part) => {
        const i = this.free.findIndex((p) => p.id === part.id);
        // A value of a series is what it was before its logarithm was taken.
        return i < 0 ? part : withMainValue(part, Number(Math.exp(x[i]).toPrecision(12)));
      }),
    };
  }

  /** Take over what measured impedances make of the levels and loads at these values. */
  settle(x: ArrayLike<number>): void {
    if (!this.document.drivers.some((d) => d.measured?.impedance)) return;
    this.moreDb.fill(0);
    this.moreOhms.fill(1);
    const plain = this.try(x);
    const asked = this.loadHz.length > 0;
    const truth = new SolvedSpeaker(this.with(x), undefined, asked);
    const { sum } = truth.sound(truth.electrical(this.bandHz));
    const levels = sum.re.map((re, k) => decibels(re, sum.im[k]));
    lessMean(levels).forEach((l, k) => (this.moreDb[k] = l - plain.levels[k]));
    if (!asked) return;
    const z = truth.impedance(truth.electrical(this.loadHz));
    z.re.forEach((re, k) => (this.moreOhms[k] = Math.hypot(re, z.im[k]) / plain.ohms[k]));
  }

  /** Levels and loads at values. */
  try(x: ArrayLike<number>): Tried {
    this.put(x);
    const volts = this.analysis.voltages(
      this.sounding.map((s) => s.net),
      this.bandHz,
    );
    const levels = new Float64Array(BAND_POINTS);
    for (let k = 0; k < BAND_POINTS; k++) {
      let [re, im] = [0, 0];
      for (let n = 0; n < volts.length; n++) {
        const by = this.sounding[n];
        re += by.re[k] * volts[n].re[k] - by.im[k] * volts[n].im[k];
        im += by.re[k] * volts[n].im[k] + by.im[k] * volts[n].re[k];
      }
      levels[k] = decibels(re, im) + this.moreDb[k];
    }
    const mean = meanOf(levels);
    const ways = this.shaped.map(({ net, soundDb, shapeDb, counts }) => {
      const v = volts[this.sounding.findIndex((s) => s.net === net)];
      return shapeDb.map((db, k) =>
        counts[k] ? 10 * Math.log10(v.re[k] ** 2 + v.im[k] ** 2) + soundDb[k] - mean - db : 0,
      );
    });
    const degreesOf = (net: string, k: number) => {
      const v = volts[this.sounding.findIndex((s) => s.net === net)];
      return Math.atan2(v.im[k], v.re[k]) / RADIANS;
    };
    const pairs = this.tracked.map(({ nets: [low, high], apartDegrees, counts }) =>
      apartDegrees.map((more, k) =>
        counts[k] ? wrapped(degreesOf(high, k) - degreesOf(low, k) + more) : 0,
      ),
    );
    const amp = this.atAmp();
    const ohms = amp.re.map((re, k) => {
      const [rest, im] = [1 - re, amp.im[k]];
      // Z = Rs V/(1 - V) for a volt of drive.
      return (this.sourceOhms * Math.hypot(re, im) * this.moreOhms[k]) / Math.hypot(rest, im);
    });
    return { levels: lessMean(levels), ohms, ways: [...ways, ...pairs] };
  }

  /** The same with slopes by the logarithms of the values: one column a free part. */
  slopes(x: ArrayLike<number>): Slopes {
    const tried = this.try(x);
    const nets = this.sounding.map((s) => s.net);
    const volts = this.analysis.voltages(nets, this.bandHz);
    const moved = nets.map((net) => this.moves(net, this.bandHz));
    const levels = this.free.map(() => new Float64Array(BAND_POINTS));
    for (let k = 0; k < BAND_POINTS; k++) {
      const shares = this.sounding.map((by, n) => ({
        re: by.re[k] * volts[n].re[k] - by.im[k] * volts[n].im[k],
        im: by.re[k] * volts[n].im[k] + by.im[k] * volts[n].re[k],
      }));
      let [sr, si] = [0, 0];
      for (const { re, im } of shares) {
        sr += re;
        si += im;
      }
      const size = sr * sr + si * si;
      shares.forEach(({ re, im }, n) => {
        // The share of a net in the sum, by which its own slopes count.
        const [pr, pi] = [(re * sr + im * si) / size, (im * sr - re * si) / size];
        this.free.forEach((_, i) => {
          const { levelDb, phaseDegrees } = moved[n][i];
          levels[i][k] += pr * levelDb[k] - pi * phaseDegrees[k] * RADIANS * DB_PER_NEPER;
        });
      });
    }
    const amp = this.atAmp();
    const none = this.free.map(() => ({ levelDb: NOWHERE, phaseDegrees: NOWHERE }));
    const ampMoves = this.loadHz.length > 0 ? this.moves(AMP_NET, this.loadHz) : none;
    const logOhms = ampMoves.map(({ levelDb, phaseDegrees }) =>
      amp.re.map((re, k) => {
        // d ln Z = d ln V/(1 - V).
        const [rest, im] = [1 - re, -amp.im[k]];
        const [dr, di] = [levelDb[k] / DB_PER_NEPER, phaseDegrees[k] * RADIANS];
        return (dr * rest + di * im) / (rest * rest + im * im);
      }),
    );
    const ways = this.shaped.map(({ net, counts }) => {
      const own = moved[nets.indexOf(net)];
      return this.free.map((_, i) => {
        const mean = meanOf(levels[i]);
        return own[i].levelDb.map((db, k) => (counts[k] ? db - mean : 0));
      });
    });
    const pairs = this.tracked.map(({ nets: [low, high], counts }) => {
      const [a, b] = [moved[nets.indexOf(low)], moved[nets.indexOf(high)]];
      return this.free.map((_, i) =>
        b[i].phaseDegrees.map((d, k) => (counts[k] ? d - a[i].phaseDegrees[k] : 0)),
      );
    });
    return { tried, levels: levels.map(lessMean), logOhms, ways: [...ways, ...pairs] };
  }

  /** Voltage at the amplifier's net, for its load. */
  private atAmp(): ComplexTrace {
    return this.loadHz.length > 0
      ? this.analysis.voltage(AMP_NET, this.loadHz)
      : { re: NOWHERE, im: NOWHERE };
  }

  private put(x: ArrayLike<number>): void {
    this.places.forEach((place, i) => (this.analysis.values[place] = Math.exp(x[i])));
    this.analysis.update();
  }

  private moves(net: string, hz: Float64Array): PartSensitivity[] {
    const found = new Adjoint(this.analysis, net).parts(hz, this.places);
    return found;
  }

  /** A terminal at ground sounds nothing; one of a unit turned over sounds the other way round. */
  private soundingNets(
    made: readonly ((hz: number) => { re: number; im: number })[],
  ): { net: string; re: Float64Array; im: Float64Array }[] {
    const { connections, drivers } = this.document;
    const nets = new Map<string, { re: Float64Array; im: Float64Array }>();
    drivers.forEach(({ id }, i) => {
      const { plus, minus } = connections.find((c) => c.driver === id)!;
      for (const [net, sign] of [
        [plus, 1],
        [minus, -1],
      ] as const) {
        if (net === GROUND_NET || net === DRIVE) continue;
        let by = nets.get(net);
        if (!by)
          nets.set(
            net,
            (by = { re: new Float64Array(BAND_POINTS), im: new Float64Array(BAND_POINTS) }),
          );
        for (let k = 0; k < BAND_POINTS; k++) {
          const { re, im } = made[i](this.bandHz[k]);
          by.re[k] += sign * re;
          by.im[k] += sign * im;
        }
      }
    });
    return [...nets].map(([net, by]) => ({ net, ...by }));
  }
}

const decibels = (re: number, im: number): number =>
  10 * Math.log10((re * re + im * im) / REFERENCE_PASCALS ** 2 + 1e-30);

const meanOf = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / values.length;

function lessMean(values: Float64Array): Float64Array {
  const mean = meanOf(values);
  return values.map((v) => v - mean);
}
