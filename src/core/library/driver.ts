import * as z from 'zod';
import { driverModel } from '@/core/parts/kinds/driver';
import { unitFault } from '@/core/speaker/document';
import { entryFields, type LibraryKind } from './entry';

const driverSchema = z.strictObject({
  ...entryFields('jaunty-reed/driver'),
  /** What it is to whatever drives it, in the figures of its kind of part. */
  model: driverModel,
  note: z.string().max(2000, 'must be at most 2000 characters long').default(''),
});

/** A loudspeaker that ways can end in. */
export type DriverEntry = z.infer<typeof driverSchema>;

export const driverEntryKind: LibraryKind<DriverEntry> = {
  table: 'drivers',
  noun: 'loudspeaker',
  schema: driverSchema,
  migrate: withFigures,
  fault({ model }) {
    const fault = unitFault(model, 'terminals');
    return fault && { path: `model${fault.path}`, message: fault.message };
  },
};

/** Names that the figures of its terminals had before it had all of a data sheet's. */
const BEFORE: Readonly<Record<string, string>> = {
  ohms: 'reOhms',
  henries: 'leHenries',
  resonanceHz: 'fsHz',
  mechanicalQ: 'qms',
  electricalQ: 'qes',
};

/** An entry that was written when only its terminals were known. */
function withFigures(document: unknown): unknown {
  const model = (document as { model?: unknown } | null)?.model;
  if (typeof model !== 'object' || model === null || !('resonanceHz' in model)) return document;
  return {
    ...(document as object),
    model: Object.fromEntries(Object.entries(model).map(([name, v]) => [BEFORE[name] ?? name, v])),
  };
}
