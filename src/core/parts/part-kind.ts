import type { z } from 'zod';
import type { Part } from '@/core/circuit/schema';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Facing, Point } from './geometry';

/** Length of a two-ended symbol, and of an amplifier from inputs to output, in grid units. */
export const SYMBOL_LENGTH = 4;
/** Strokes of symbols are written in these parts of a grid unit. */
export const UNIT = 20;

export type ResistorLook = 'box' | 'zigzag';

/** Where a line may join a symbol. */
export interface Pin {
  name: string;
  /** Place in the symbol's own plane: it points to the right, its first pin lies at 0,0. */
  at: Point;
  /** The way a line leaves it. */
  leaves: Facing;
  /** Drawn only where it is asked for (supply pins, bias inputs): where its line ends at the body. */
  optional?: Point;
}

/** SVG path data in parts of `UNIT` a grid unit. */
export interface Stroke {
  d: string;
  /** Filled with the paper's colour, or with ink. */
  fill?: 'paper' | 'ink';
  dashed?: true;
}

/** A sign within a symbol, upright however it is turned: its middle, in grid units. */
export interface Mark {
  text: string;
  at: Point;
}

export interface PartSymbol {
  pins: readonly Pin[];
  /** Height of the line that mirroring flips it about. */
  axis: number;
  /** Convex outline of its body, without the lines that lead to it. */
  body: readonly Point[];
  /** Lines from its fixed pins to the body. */
  leads: readonly (readonly [Point, Point])[];
  strokes(look: ResistorLook): readonly Stroke[];
  marks?: readonly Mark[];
  /** How its words look for a place: beside a two-ended body, under a triangle, all around. */
  words: 'along' | 'triangle' | 'around';
  /** What a sketch calls it as it lies, and flipped. */
  upright?: string;
  flipped?: string;
}

/** A number that can be set of a part. */
export interface PartQuantity {
  name: string;
  /** What it is called where it is edited; the value itself needs no name. */
  label: string;
  quantity: QuantityKind;
  /** What a new part has. */
  usual: number;
  /** Bounds of a plain number; those of a physical one follow from its quantity. */
  range?: readonly [least: number, greatest: number];
  signed?: true;
}

/** A device or op-amp described by what it is. */
export interface NamedModel {
  name: string;
  model: unknown;
}

/** Which of a sheet's choices of series a kind of part is bought from; null: any value can be set. */
export type SeriesChoice = 'resistors' | 'capacitors' | 'inductors' | null;

/** A part with everything that bears on what it is in a circuit. */
export interface PartToBuild {
  id: string;
  /** The circuit's net at each pin; optional pins that are not drawn are absent. */
  nets: Readonly<Record<string, string>>;
  /** Its quantities by name. */
  values: Readonly<Record<string, number>>;
  /** The model that `PartKind.model` has passed. */
  model?: unknown;
  /** Loss in series with it, ohms. */
  lossOhms?: number;
  ground: string;
}

/** A part of a circuit file as a kind sees it. */
export interface PartTaken {
  nets: Record<string, string>;
  values: Record<string, number>;
  model?: unknown;
  lossOhms?: number;
}

/**
 * Everything to be known of one kind of part: how it is drawn, what can be set of it, where it is
 * bought, and what it becomes in a circuit. One kind, one file under `kinds/`.
 */
export interface PartKind {
  kind: string;
  /** In a sentence, with its article: “a resistor”. The word alone is what a sketch says. */
  noun: string;
  article: 'a' | 'an';
  /** Parts are numbered behind it: R1, R2. */
  letter: string;
  symbol: PartSymbol;
  /** What can be set of it; the first is written beside the symbol. */
  quantities: readonly PartQuantity[];
  /** Checked models, for kinds that have one, and those that are offered; the first is usual. */
  model?: z.ZodType;
  models?: readonly NamedModel[];
  /** Whether a loss in series with it can be told. */
  lossy?: true;
  series: SeriesChoice;
  /** The two pins that “across it” means, where they are not the first two; and the one that “in line” does. */
  across?: readonly [string, string];
  inLine?: string;
  /** What one costs in small quantities, in whatever money the person counts; null: not bought. */
  price: number | null;
  /** Whether circuits that are designed have it; the others come in by hand. */
  inDesigns?: true;
  /** How far a usual part is off, as a part of its value. */
  tolerance: number;
  /** What it is in a circuit; further parts are named behind its own id. */
  become(part: PartToBuild): Part[];
  /**
   * A part of a circuit as this kind, or nothing where it is another's.
   *
   * @param ground name of the circuit's ground
   */
  take(part: Part, ground: string): PartTaken | undefined;
}
