import { z } from 'zod';
import { between, within } from '@/core/quantity/bounds';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { ResponseReader } from '../reader';

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

/** One kind of number that is read off a response: its form, its unit, its name, and how it is read. */
export interface MeasureKind<M> {
  quantity: QuantityKind;
  /** @throws ReedError `range` where the response has no such number */
  read(reader: ResponseReader, measure: M): Measured;
  name(measure: M, words: NameWords): string;
}

/** What a level is counted from. */
export const referenceSchema = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('plateau') }),
  z.strictObject({ from: z.literal('peak') }),
  z.strictObject({ from: z.literal('level'), db: between(-400, 400) }),
  z.strictObject({ from: z.literal('frequency'), atHz: within('hertz') }),
]);
export type Reference = z.infer<typeof referenceSchema>;

/** The level that a reference means, and the place from where it is looked outwards. */
export function baseOf(reader: ResponseReader, reference: Reference): { db: number; hz: number } {
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
