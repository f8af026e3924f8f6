import { inWords } from '@/core/quantity/format';
import { ReedError } from '@/core/errors';
import { nearestPreferred } from '@/core/quantity/series';
import type { Complex } from '@/core/numeric/complex';
import type { Drawing } from '@/core/drawing/drawing';
import { orderOfPoles, standardTransfer, type StageFigures, type StageKind } from './figures';

export type { PoleFigure, StageFigures, StageKind } from './figures';

/** What is asked of a stage; without a gain it takes the one its topology gives most simply. */
export type StageAsk = Omit<StageFigures, 'gain'> & { gain?: number };

/** Part values by part id: ohms, farads, henries, siemens. */
export type Values = Readonly<Record<string, number>>;

/** What a designer chooses freely. */
export interface StageChoice {
  /** The capacitor to start from. */
  farads?: number;
  /** The impedance level, or resistor, to start from; by default 10 kΩ where op-amps drive. */
  ohms?: number;
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
  /** Where the formula is the design’s and does not hold for the values at hand: what it says, and what is. */
  off?: string;
  /** What the formula was written from and what it comes to, for checking it. */
  source?: { formula: string; value: number; named: Readonly<Record<string, number>> };
}

export type Range = readonly [least: number, greatest: number];

/** The legal range of every figure that can be asked for; the conformance test walks all of it. */
export interface StageLimits {
  gain: Range;
  q?: Range;
  /** Of zeroHz / f0Hz. */
  zero?: Range;
  boost?: Range;
  depth?: Range;
  own?: Readonly<Record<string, Range>>;
  /** Asked for by its poles: all-pole shapes, or shapes with zeros on the axis too. */
  poles?: 'all-pole' | 'with-zeros';
}

/** A section that a circuit is looked for, within what is asked. */
export interface SectionAsk {
  /** Absent of a first-order one. */
  q?: number;
  /** Asked of the whole, dB. */
  gainDb: number;
  /** How many sections there are, and whether this is the only one. */
  sections: number;
  alone: boolean;
}

export interface Topology {
  id: string;
  /** What it has in common with its siblings: the same circuit for other kinds, or of other orders. */
  family?: string;
  /** What it is called without its order, where it comes in several. */
  series?: string;
  /**
   * How well it suits a section of its kind; of those that can make one the best is taken, unless
   * another is asked for. Left out, it is never the usual one.
   */
  suits?(section: SectionAsk): number;
  /** Whether it can have these figures together, where limits of each alone do not say so. */
  holds?(ask: StageAsk): boolean;
  /** It is taken only where it is asked for by its name. */
  onlyByName?: true;
  name: string;
  /** A few words for a stage card. */
  short: string;
  /** How an ask says it: “as unity-gain stages”. */
  asWords: string;
  kind: StageKind;
  order: number;
  opAmps: number;
  /**
   * How the gain comes about: fixed at one, settable, settable and inverting, or given by the other
   * figures.
   */
  gain: 'unity' | 'settable' | 'inverting' | 'given';
  drawing: Drawing;
  limits: StageLimits;
  /** Its shape is its own: an ask sets its edge, not its poles. */
  ownShape?: boolean;
  /** Figures are exact only where parts that should be equal are. */
  needsMatching?: boolean;
  /**
   * Values that give the asked figures exactly with ideal op-amps.
   * @throws ReedError `design` naming the inequality that fails and the remedy
   */
  design(ask: StageAsk, choice?: StageChoice): Values;
  /** The figures that given values give, with ideal op-amps. */
  figures(values: Values): StageFigures;
  /** The response of given figures, where it is not the standard one of its kind. */
  transfer?(figures: StageFigures, hz: number): Complex;
  explain(values: Values): Explanation[];
  /** One paragraph: how it works. */
  about: string;
  /** Where its outputs are. */
  outputs: string;
  /** What tunes what. */
  tuning: string;
  /** How it takes parts that are not exact. */
  sensitivity: string;
  /** When not to use it. */
  avoid: string;
  /** What each part is, as a multiple of R or C: "QR", "R/H". */
  roles?: Readonly<Record<string, string>>;
  /** Its signal flow in blocks, from input to output, with what is fed back. */
  blocks?: BlockDiagram;
}

export interface BlockDiagram {
  /** In a row from left to right; `out` names the output taken behind a block. */
  row: readonly Block[];
  /** Ways back: from behind one block to the summing point of another, by place in the row. */
  back: readonly (Block & { from: number; to: number })[];
}

/** A weight of a signal flow. */
export interface Block {
  text: string;
  out?: string;
  /** The parts that make the weight, the one that is turned for it first. */
  parts?: readonly string[];
}

export const TWO_PI = 2 * Math.PI;
const USUAL_OHMS = 10_000;

/** The response that a topology promises for its figures. */
export function transferOf(topology: Topology, figures: StageFigures, hz: number): Complex {
  return topology.transfer?.(figures, hz) ?? standardTransfer(topology.kind, figures, hz);
}

/** Whether a stage does the same at every frequency. */
export const isFlat = (topology: Pick<Topology, 'kind'>): boolean =>
  topology.kind === 'gain' || topology.kind === 'attenuator';

/** The capacitor to start from: the choice, or the common value that brings `1/(w0 C)` near 10 kΩ. */
export function startCapacitor(f0Hz: number, choice: StageChoice | undefined): number {
  return (
    choice?.farads ??
    nearestPreferred(
      1 / (TWO_PI * f0Hz * (choice?.ohms ?? USUAL_OHMS)),
      choice?.ohms === undefined ? 'E6' : 'E12',
    )
  );
}

/** The smallest common capacitor of at least `farads`. */
export function capacitorAtLeast(farads: number): number {
  const near = nearestPreferred(farads, 'E12');
  return near >= farads * (1 - 1e-9) ? near : nearestPreferred(farads * 1.2, 'E12');
}

/** Check an ask against a topology's limits before its equations are used. */
export function checkAsk(
  topology: Pick<Topology, 'name' | 'limits' | 'gain' | 'order' | 'kind'>,
  ask: StageAsk,
): void {
  const refuse = (why: string) => new ReedError('design', `${topology.name}: ${why}`);
  if (!(ask.f0Hz > 0) || !Number.isFinite(ask.f0Hz))
    throw refuse(
      `a corner of ${inWords(ask.f0Hz, 'hertz')} cannot be built; ask for more than 0 Hz.`,
    );
  const { q, gain, zero, boost, depth, own = {}, poles } = topology.limits;
  const within = (noun: string, value: number | undefined, range: Range | undefined) => {
    if (!range || value === undefined) return;
    if (!(value >= range[0] * (1 - 1e-9) && value <= range[1] * (1 + 1e-9)))
      throw refuse(
        `${noun} = ${show(value)} is outside ${show(range[0])} to ${show(range[1])}, which this circuit can hold.`,
      );
  };
  if (q && ask.q === undefined) throw refuse('a second-order stage needs a Q.');
  within('Q', ask.q, q);
  if (boost && ask.boost === undefined) throw refuse('it needs a height to lift or cut by.');
  within('boost', ask.boost, boost);
  within('depth', ask.depth, depth);
  within('zero over corner', ask.zeroHz === undefined ? undefined : ask.zeroHz / ask.f0Hz, zero);
  if (ask.zeroHz !== undefined && !zero && Math.abs(ask.zeroHz / ask.f0Hz - 1) > 1e-9)
    throw refuse(
      `its zero lies at its corner of ${inWords(ask.f0Hz, 'hertz')} and ${inWords(ask.zeroHz, 'hertz')} was asked; use a state-variable notch.`,
    );
  for (const [name, range] of Object.entries(own)) within(name, ask.own?.[name], range);
  if (poles && (!ask.poles || orderOfPoles(ask.poles) !== topology.order))
    throw refuse(`it is asked for by ${topology.order} poles.`);
  if (poles === 'all-pole' && ask.zerosHz?.length)
    throw refuse('it has no zeros; take a shape without them, or a form that has.');
  if (ask.gain === undefined) return;
  if (gain[0] === gain[1] && Math.abs(ask.gain - gain[0]) > 1e-9) {
    throw refuse(
      `its gain is fixed at ${show(gain[0])} and ${show(ask.gain)} was asked; use a form whose gain can be set.`,
    );
  }
  if (ask.gain < gain[0] - 1e-12 || ask.gain > gain[1] + 1e-12) {
    throw refuse(
      `a gain of ${show(ask.gain)} is outside ${gain[0]} to ${gain[1]}, which this circuit can give.`,
    );
  }
}

const show = (x: number) => Number(x.toPrecision(4)).toString();
