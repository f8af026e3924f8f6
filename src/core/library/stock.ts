import * as z from 'zod';
import { findPartKind } from '@/core/parts';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import { between } from '@/core/quantity/bounds';
import { quoted } from '@/core/text';
import { entryFields, type LibraryKind } from './entry';

const stockSchema = z.strictObject({
  ...entryFields('jaunty-reed/stock'),
  /** The kind of part, as in drawings. */
  kind: z.string().max(40),
  /** Its main number, in SI units; absent for devices, which are known by name. */
  value: z.number({ error: 'must be a finite number' }).optional(),
  /** How far it may be off, as a part of its value. */
  tolerance: between(0, 0.9).optional(),
  /** Pieces at hand. */
  quantity: z.int('must be a whole number').min(0, 'must not be negative').max(1_000_000),
  note: z.string().max(2000, 'must be at most 2000 characters long').default(''),
});

/** Parts of one kind and value that lie in the drawer. */
export type StockEntry = z.infer<typeof stockSchema>;

export const stockKind: LibraryKind<StockEntry> = {
  table: 'drawer',
  noun: 'part of the drawer',
  schema: stockSchema,
  fault({ kind, value }) {
    const found = findPartKind(kind);
    if (!found) return { path: 'kind', message: `${quoted(kind)} is no kind of part known here` };
    const main = mainQuantity(found);
    if (value === undefined) return null;
    if (!main) return { path: 'value', message: `${found.article} ${found.noun} has no value` };
    const problem = quantityProblem(main, value);
    return problem === null ? null : { path: 'value', message: problem };
  },
};
