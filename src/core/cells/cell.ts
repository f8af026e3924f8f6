import { THERMAL_VOLTS } from '@/core/constants';
import type { Drawing } from '@/core/drawing/drawing';
import type { NamedModel } from '@/core/parts/part-kind';

/** What one part of a cell is: numbers by name (the main one as `value`), and a device's model. */
export interface CellPart {
  value?: number;
  more?: Readonly<Record<string, number>>;
  model?: NamedModel;
}

/** A number of a part that a control moves, at both ends of its travel. */
export interface CellMove {
  part: string;
  quantity: string;
  from: number;
  to: number;
  law: 'even' | 'by ratio';
}

/** What a control of a cell is for. */
export const CONTROLS_FOR = ['cut-off', 'resonance', 'level'] as const;
export type ControlFor = (typeof CONTROLS_FOR)[number];

/** A knob, a control voltage or a control current. */
export interface CellControl {
  for: ControlFor;
  name: string;
  is: 'turn' | 'volts' | 'amps';
  /** What stands at both ends of a control that is no turn of a shaft. */
  span?: { from: number; to: number };
  /** Where it stands at first, 0 to 1. */
  at: number;
  moves: readonly CellMove[];
}

/** What a cell is planned for. */
export interface CellAsk {
  /** Cut-off at both ends of its control. */
  lowHz: number;
  highHz: number;
}

export interface CellPlan {
  parts: Record<string, CellPart>;
  controls: CellControl[];
}

/** What the textbook says of a cell as it stands. */
export interface TextbookFigures {
  f0Hz: number;
  /** Volts per volt where it passes, or at its peak where that is what it passes. */
  gain: number;
  /** Of its least damped pair, where it has one. */
  q?: number;
  /** How often the loop hands on what comes round, where resonance is fed back. */
  loop?: number;
  /** At which that sings, and where. */
  singsAt?: { loop: number; hz: number };
}

/** Numbers of the parts as they stand, with every control where it is: by part and quantity. */
export type CellValues = (part: string, quantity?: string) => number;

/** One thing that is to be known of a cell, with its formula and the numbers put in. */
export interface CellReason {
  of: string;
  text: string;
  /** TeX; with the numbers put in. */
  formula?: string;
  numbers?: string;
  /** What a rule of thumb says, where that differs. */
  rule?: string;
}

/**
 * A voltage-controlled filter: one file each. Unlike a topology it promises no response: its devices
 * are bent, load each other and need bias, so what it does is what the solved circuit says. The
 * textbook’s figures stand beside that.
 */
export interface Cell {
  id: string;
  name: string;
  /** A few words for a stage card. */
  short: string;
  drawing: Drawing;
  /** Cut-offs that it can be planned for. */
  limits: { leastHz: number; mostHz: number };
  usual: CellAsk;
  /** Values of its parts and its controls for what is asked. */
  plan(ask: CellAsk): CellPlan;
  textbook(values: CellValues): TextbookFigures;
  /** Its cut-off is not in proportion to what controls it: the law is the device’s own. */
  ownLaw?: true;
  /** What of its level the textbook’s gain is: where it is flat, if nothing is said. */
  passes?: 'peak';
  /** How far the textbook’s cut-off may be from the solved one in its valid range, as a part of it. */
  agrees: number;
  reasons(values: CellValues): CellReason[];
  /** Capacitors so small that paper leaves them out. */
  small?: readonly string[];
  /** What its switches make of it: which of them are closed. */
  paths?: readonly { name: string; closed: readonly string[]; open: readonly string[] }[];
  /** How it works; its control and law; how it is biased; what it cannot do. */
  about: string;
  control: string;
  bias: string;
  avoid: string;
}

export const TWO_PI = 2 * Math.PI;

/** A number as it stands in TeX, in powers of ten. */
export function texNumber(x: number): string {
  const [digits, exponent] = x.toExponential(3).split('e');
  return `${digits} \\cdot 10^{${Number(exponent)}}`;
}

/** Transconductance of a differential pair at rest: i = I tanh(v / 2 VT). */
export const pairSiemens = (amps: number): number => amps / (2 * THERMAL_VOLTS);

/** Tail current for which a differential pair has this transconductance. */
export const pairAmps = (siemens: number): number => siemens * 2 * THERMAL_VOLTS;

/**
 * What the textbook says of four equal poles at `f0Hz` whose output goes back inverted, `loop` times:
 * they lie about -w0 on the fourth roots of -k, the least damped pair at -1 + k^(1/4) (1 ± j)/sqrt 2,
 * which reaches the axis at k = 4.
 */
export function fourPoleLoop(
  f0Hz: number,
  loop: number,
): Pick<TextbookFigures, 'f0Hz' | 'q' | 'loop' | 'singsAt'> {
  const r = loop ** 0.25 / Math.SQRT2;
  const q = Math.hypot(1 - r, r) / (2 * (1 - r));
  return {
    f0Hz,
    ...(loop > 0 ? { q: q > 0 ? q : Infinity } : {}),
    loop,
    singsAt: { loop: 4, hz: f0Hz },
  };
}

/** The knob P1 as a divider: how far it is turned, and what its wiper shows besides. */
export const wiperOf = (values: CellValues): { turn: number; ohms: number } => {
  const turn = values('P1', 'turn');
  return { turn, ohms: values('P1') * turn * (1 - turn) };
};

/** Where a cut-off stands at first: somewhat above the middle of its range. */
const FIRST = 0.6;

/** A volt an octave into the bias currents of some transconductors, all alike. */
export const cutOffControl = (
  ask: CellAsk,
  amps: (hz: number) => number,
  parts: readonly string[],
  quantity = 'biasAmps',
): CellControl => ({
  for: 'cut-off',
  name: 'Cut-off',
  is: 'volts',
  span: { from: 0, to: Math.log2(ask.highHz / ask.lowHz) },
  at: FIRST,
  moves: parts.map((part) => ({
    part,
    quantity,
    from: amps(ask.lowHz),
    to: amps(ask.highHz),
    law: 'by ratio',
  })),
});

/** A knob on the track P1. */
export const resonanceControl = ({ from, to }: { from: number; to: number }): CellControl => ({
  for: 'resonance',
  name: 'Resonance',
  is: 'turn',
  at: 0.5,
  moves: [{ part: 'P1', quantity: 'turn', from, to, law: 'even' }],
});
