import * as z from 'zod';
import { within } from '@/core/quantity/bounds';
import { atFrequency, baseOf, defineMeasure, referenceSchema, referenceWords } from './measure';

const levelSchema = z.strictObject({
  measure: z.literal('level'),
  atHz: within('hertz'),
  /** Left out, it is counted from the source. */
  reference: referenceSchema.optional(),
});

export const level = defineMeasure({
  schema: levelSchema,
  needs: 'transfer',
  quantity: 'decibels',
  read: (reader, { atHz, reference }) => ({
    value: reader.levelAt(atHz) - (reference ? baseOf(reader, reference).db : 0),
    atHz,
  }),
  name: ({ atHz, reference }, words) =>
    `Level at ${words.hz(atHz)}${reference ? `, against ${referenceWords(reference, words)}` : ''}`,
  asked: [
    {
      title: 'Level at a frequency',
      fields: [atFrequency, { is: 'reference', among: ['source', 'plateau', 'peak'] }],
    },
  ],
});
