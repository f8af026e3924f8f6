import { z } from 'zod';
import type { MeasureKind } from './measure';

export const plateauSchema = z.strictObject({ measure: z.literal('plateau') });

export const plateau: MeasureKind<z.infer<typeof plateauSchema>> = {
  quantity: 'decibels',
  read(reader) {
    const { hz, value } = reader.plateau();
    return { value, atHz: hz };
  },
  name: () => 'Plateau',
};
