import * as z from 'zod';
import { defineMeasure } from './measure';

const plateauSchema = z.strictObject({ measure: z.literal('plateau') });

export const plateau = defineMeasure({
  schema: plateauSchema,
  needs: 'transfer',
  quantity: 'decibels',
  read(reader) {
    const { hz, value } = reader.plateau();
    return { value, atHz: hz };
  },
  name: () => 'Plateau',
  asked: [{ title: 'Plateau', fields: [] }],
});
