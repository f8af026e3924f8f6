import { z } from 'zod';
import { within } from '@/core/quantity/bounds';
import type { MeasureKind } from './measure';

export const phaseSchema = z.strictObject({ measure: z.literal('phase'), atHz: within('hertz') });

export const phase: MeasureKind<z.infer<typeof phaseSchema>> = {
  quantity: 'degrees',
  read: (reader, { atHz }) => ({ value: reader.phaseAt(atHz), atHz }),
  name: ({ atHz }, { hz }) => `Phase at ${hz(atHz)}`,
};
