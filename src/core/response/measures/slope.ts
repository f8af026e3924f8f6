import * as z from 'zod';
import { ReedError } from '@/core/errors';
import { within } from '@/core/quantity/bounds';
import { betweenFrequencies, defineMeasure } from './measure';

const slopeSchema = z.strictObject({
  measure: z.literal('slope'),
  fromHz: within('hertz'),
  toHz: within('hertz'),
});

export const slope = defineMeasure({
  schema: slopeSchema,
  needs: 'transfer',
  quantity: 'slope',
  read(reader, { fromHz, toHz }) {
    const octaves = Math.log2(toHz / fromHz);
    if (octaves === 0) throw new ReedError('range', 'A slope needs two different frequencies.');
    const rise = reader.levelAt(toHz) - reader.levelAt(fromHz);
    return { value: rise / octaves, atHz: Math.sqrt(fromHz * toHz) };
  },
  name: ({ fromHz, toHz }, { hz }) => `Slope, ${hz(fromHz)} to ${hz(toHz)}`,
  asked: [{ title: 'Slope between two frequencies', fields: betweenFrequencies }],
});
