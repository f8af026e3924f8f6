import * as z from 'zod';
import { driver } from '@/core/parts/kinds/driver';
import { entryFields, type LibraryKind } from './entry';

const driverSchema = z.strictObject({
  ...entryFields('jaunty-reed/driver'),
  /** What it is to whatever drives it, in the figures of its kind of part. */
  model: driver.model!,
  note: z.string().max(2000, 'must be at most 2000 characters long').default(''),
});

/** A loudspeaker that ways can end in. */
export type DriverEntry = z.infer<typeof driverSchema>;

export const driverEntryKind: LibraryKind<DriverEntry> = {
  table: 'drivers',
  noun: 'loudspeaker',
  schema: driverSchema,
};
