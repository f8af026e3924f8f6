import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { Reader } from '../reader';

export interface Measured {
  value: number;
  /** Where on the frequency axis it was read, for the cursor. */
  atHz: number;
  /** Where the response passes the same level again, of an edge that is not the only one. */
  alsoHz?: number[];
}

/** How numbers stand in a name. */
export interface NameWords {
  hz: (value: number) => string;
  number: (value: number) => string;
}

/** What a reading is read off: how the level and the phase of a net go over frequency. */
export type Analysis = 'transfer';

/** One kind of number that is read: its form in documents, its unit, its name, and how it is found. */
export interface MeasureKind<S extends z.ZodObject<{ measure: z.ZodLiteral<string> }>> {
  /** Its `measure` is the name it has in documents. */
  schema: S;
  /** What it is read off. */
  needs: Analysis;
  quantity: QuantityKind;
  /** @throws ReedError `range` where the response has no such number */
  read(reader: Reader, measure: z.infer<S>): Measured;
  name(measure: z.infer<S>, words: NameWords): string;
  /** How one of them is asked for: usually one way, with what is to be filled in. */
  asked: readonly MeasureChoice[];
}

/** Keeps the schema of a measure while the registry holds them all alike. */
export const defineMeasure = <S extends z.ZodObject<{ measure: z.ZodLiteral<string> }>>(
  kind: MeasureKind<S>,
): MeasureKind<S> => kind;

/** One line of the list that a measure is chosen from. */
export interface MeasureChoice {
  title: string;
  /** What the choice itself says of the measure. */
  given?: Readonly<Record<string, unknown>>;
  fields: readonly MeasureField[];
}

/** Something that is filled in: the field of the measure it makes, and what stands there at first. */
export type MeasureField =
  /** A frequency, at first so many times that of the cursor. */
  | { is: 'hertz'; name: string; label: string; timesCursor: number }
  /** So many decibels; `exact` is what is meant by the text that stands there. */
  | { is: 'decibels'; name: string; label: string; text: string; exact: number }
  /** What a level is counted from. */
  | { is: 'reference'; among: readonly ReferenceChoice[] }
  | { is: 'side' };

/** The source is counted from where nothing else is said. */
export type ReferenceChoice = 'source' | 'plateau' | 'peak';

export const atFrequency: MeasureField = {
  is: 'hertz',
  name: 'atHz',
  label: 'At',
  timesCursor: 1,
};
export const betweenFrequencies: readonly MeasureField[] = [
  { is: 'hertz', name: 'fromHz', label: 'From', timesCursor: 1 },
  { is: 'hertz', name: 'toHz', label: 'To', timesCursor: 2 },
];

/** What a level is counted from. */
export const referenceSchema = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('plateau') }),
  z.strictObject({ from: z.literal('peak') }),
  z.strictObject({ from: z.literal('level'), db: between(-400, 400) }),
  z.strictObject({ from: z.literal('frequency'), atHz: within('hertz') }),
]);
export type Reference = z.infer<typeof referenceSchema>;

/** The level that a reference means, and the place from where it is looked outwards. */
export function baseOf(reader: Reader, reference: Reference): { db: number; hz: number } {
  switch (reference.from) {
    case 'plateau': {
      const { value, hz } = reader.plateau();
      return { db: value, hz };
    }
    case 'frequency':
      return { db: reader.levelAt(reference.atHz), hz: reference.atHz };
    case 'peak':
    case 'level': {
      const { value, hz } = reader.highest();
      return { db: reference.from === 'peak' ? value : reference.db, hz };
    }
  }
}

/** “under the highest point”, “under 0.5 dB”. */
export function referenceWords(reference: Reference, { hz, number }: NameWords): string {
  switch (reference.from) {
    case 'plateau':
      return 'the plateau';
    case 'peak':
      return 'the highest point';
    case 'level':
      return `${number(reference.db)}\u00a0dB`;
    case 'frequency':
      return `the level at ${hz(reference.atHz)}`;
  }
}
