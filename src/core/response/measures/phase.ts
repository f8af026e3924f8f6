import * as z from 'zod';
import { within } from '@/core/quantity/bounds';
import { atFrequency, defineMeasure } from './measure';

const phaseSchema = z.strictObject({ measure: z.literal('phase'), atHz: within('hertz') });

export const phase = defineMeasure({
  schema: phaseSchema,
  needs: 'transfer',
  quantity: 'degrees',
  read: (reader, { atHz }) => ({ value: reader.phaseAt(atHz), atHz }),
  name: ({ atHz }, { hz }) => `Phase at ${hz(atHz)}`,
  asked: [{ title: 'Phase at a frequency', fields: [atFrequency] }],
});
