import * as z from 'zod';
import { within } from '@/core/quantity/bounds';
import { ReedError } from '@/core/errors';
import {
  baseOf,
  betweenFrequencies,
  defineMeasure,
  referenceSchema,
  referenceWords,
} from './measure';

/** The highest or lowest level over a range: what a stop band lets through, what a pass band loses. */
const rangeSchema = z.strictObject({
  measure: z.literal('range'),
  end: z.enum(['highest', 'lowest']),
  fromHz: within('hertz'),
  toHz: within('hertz'),
  reference: referenceSchema.optional(),
});

export const range = defineMeasure({
  schema: rangeSchema,
  needs: 'transfer',
  quantity: 'decibels',
  read(reader, { end, fromHz, toHz, reference }) {
    if (!(toHz > fromHz))
      throw new ReedError('range', 'A range needs two rising frequencies: swap them.');
    const { hz, value } = reader[end]({ fromHz, toHz });
    return { value: value - (reference ? baseOf(reader, reference).db : 0), atHz: hz };
  },
  name({ end, fromHz, toHz, reference }, words) {
    const over = reference ? `, against ${referenceWords(reference, words)}` : '';
    return `${end === 'highest' ? 'Highest' : 'Lowest'} from ${words.hz(fromHz)} to ${words.hz(toHz)}${over}`;
  },
  asked: [
    {
      title: 'Lowest between two frequencies',
      given: { end: 'lowest' },
      fields: [...betweenFrequencies, { is: 'reference', among: ['source', 'plateau', 'peak'] }],
    },
    {
      title: 'Highest between two frequencies',
      given: { end: 'highest' },
      fields: [...betweenFrequencies, { is: 'reference', among: ['source', 'plateau', 'peak'] }],
    },
  ],
});
