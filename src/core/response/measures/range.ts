import { z } from 'zod';
import { within } from '@/core/quantity/bounds';
import { ReedError } from '@/core/errors';
import { baseOf, referenceSchema, referenceWords, type MeasureKind } from './measure';

/** The highest or lowest level over a range: what a stop band lets through, what a pass band loses. */
export const rangeSchema = z.strictObject({
  measure: z.literal('range'),
  end: z.enum(['highest', 'lowest']),
  fromHz: within('hertz'),
  toHz: within('hertz'),
  reference: referenceSchema.optional(),
});

export const range: MeasureKind<z.infer<typeof rangeSchema>> = {
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
};
