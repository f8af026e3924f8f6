import { ReedError } from '@/core/errors';
import { nearestPreferred } from '@/core/quantity/series';
import type { Drawing } from './drawing';

/** What a stage does: its corner, quality factor (second order) and signed gain, volts per volt. */
export interface StageFigures {
  f0Hz: number;
  /** Absent for a first-order stage. */
  q?: number;
  /** Pass-band gain; negative where the stage inverts. */
  gain: number;
}

/** What is asked of a stage; without a gain it takes the one its topology gives most simply. */
export type StageAsk = Omit<StageFigures, 'gain'> & { gain?: number };

/** Part values by part id, ohms and farads. */
export type Values = Readonly<Record<string, number>>;

/** What a designer chooses freely. */
export interface StageChoice {
  /** The capacitor to start from; by default the one that puts resistors near 10 kΩ. */
  farads?: number;
}

/** One formula with its numbers put in (both in TeX), and what to know about it. */
export interface Explanation {
  /** Part id or figure ("f0", "Q", "gain") it explains. */
  of: string;
  formula: string;
  numbers: string;
  text: string;
  /** A rule of thumb beside the exact figure, where the two differ. */
  rule?: string;
}

export type StageKind = 'low-pass' | 'high-pass';

export interface Topology {
  id: string;
  name: string;
  /** A few words for a stage card. */
  short: string;
  /** How an ask says it: “as unity-gain stages”. */
  asWords: string;
  kind: StageKind;
  order: 1 | 2;
  opAmps: number;
  /** How the pass-band gain comes about: fixed at one, settable, or settable and inverting. */
  gain: 'unity' | 'settable' | 'inverting';
  drawing: Drawing;
  /** The legal range of figures; the conformance test walks all of it. */
  limits: { q?: readonly [number, number]; gain: readonly [number, number] };
  /**
   * Values that give the asked figures exactly with ideal op-amps.
   * @throws ReedError `design` naming the inequality that fails and the remedy
   */
  design(ask: StageAsk, choice?: StageChoice): Values;
  /** The figures that given values give, with ideal op-amps. */
  figures(values: Values): StageFigures;
  explain(values: Values): Explanation[];
  /** One paragraph: how it works. */
  about: string;
  /** What tunes what. */
  tuning: string;
  /** When not to use it. */
  avoid: string;
}

const USUAL_OHMS = 10_000;

/** The capacitor to start from: the choice, or the common value that brings `1/(w0 C)` near 10 kΩ. */
export function startCapacitor(f0Hz: number, choice: StageChoice | undefined): number {
  return choice?.farads ?? nearestPreferred(1 / (2 * Math.PI * f0Hz * USUAL_OHMS), 'E6');
}

/** The smallest common capacitor of at least `farads`. */
export function capacitorAtLeast(farads: number): number {
  const near = nearestPreferred(farads, 'E12');
  return near >= farads * (1 - 1e-9) ? near : nearestPreferred(farads * 1.2, 'E12');
}

/** Check an ask against a topology's limits before its equations are used. */
export function checkAsk(
  topology: Pick<Topology, 'name' | 'limits' | 'gain' | 'order'>,
  ask: StageAsk,
): void {
  const refuse = (why: string) => new ReedError('design', `${topology.name}: ${why}`);
  if (!(ask.f0Hz > 0) || !Number.isFinite(ask.f0Hz))
    throw refuse(`a corner of ${ask.f0Hz} Hz cannot be built; ask for more than 0 Hz.`);
  const { q, gain } = topology.limits;
  if (topology.order === 2) {
    if (ask.q === undefined) throw refuse('a second-order stage needs a Q.');
    if (q && (ask.q < q[0] || ask.q > q[1]))
      throw refuse(
        `Q = ${show(ask.q)} is outside ${q[0]} to ${q[1]}, which this circuit can hold.`,
      );
  }
  if (ask.gain === undefined) return;
  if (gain[0] === gain[1] && Math.abs(ask.gain - gain[0]) > 1e-9) {
    throw refuse(
      `its gain is fixed at ${gain[0]} and ${show(ask.gain)} was asked; use a form whose gain can be set.`,
    );
  }
  if (ask.gain < gain[0] - 1e-12 || ask.gain > gain[1] + 1e-12) {
    throw refuse(
      `a gain of ${show(ask.gain)} is outside ${gain[0]} to ${gain[1]}, which this circuit can give.`,
    );
  }
}

const show = (x: number) => Number(x.toPrecision(4)).toString();
