import { z } from 'zod';
import { within } from '@/core/quantity/bounds';
import { baseOf, referenceSchema, referenceWords, type MeasureKind } from './measure';

export const levelSchema = z.strictObject({
  measure: z.literal('level'),
  atHz: within('hertz'),
  /** Left out, it is counted from the source. */
  reference: referenceSchema.optional(),
});

export const level: MeasureKind<z.infer<typeof levelSchema>> = {
  quantity: 'decibels',
  read: (reader, { atHz, reference }) => ({
    value: reader.levelAt(atHz) - (reference ? baseOf(reader, reference).db : 0),
    atHz,
  }),
  name: ({ atHz, reference }, words) =>
    `Level at ${words.hz(atHz)}${reference ? `, against ${referenceWords(reference, words)}` : ''}`,
};
