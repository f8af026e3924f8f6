import * as z from 'zod';
import { findPartKind, withArticle } from '@/core/parts';
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
  /** What it is made of, in general words: “film”, “metal film”, “C0G ceramic”. */
  make: z.string().max(60, 'must be at most 60 characters long').optional(),
  /** How it moves with temperature, parts in a million a kelvin. */
  ppmPerKelvin: between(-1e5, 1e5, ' ppm/K').optional(),
  /** What it stands: volts across it, watts in it. */
  ratedVolts: between(0.1, 1e5, ' V').optional(),
  ratedWatts: between(1e-3, 1e4, ' W').optional(),
  /** What one costs, in whatever money the person counts. */
  price: between(0, 1e6).optional(),
  /** Where it lies. */
  place: z.string().max(60, 'must be at most 60 characters long').optional(),
  /** Figures of a device or an op-amp; checked by its kind. */
  model: z.unknown().optional(),
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
  fault({ kind, value, model }) {
    const found = findPartKind(kind);
    if (!found) return { path: 'kind', message: `${quoted(kind)} is no kind of part known here` };
    const main = mainQuantity(found);
    if (model !== undefined && found.model?.safeParse(model).success !== true)
      return { path: 'model', message: `is no model of ${withArticle(found)}` };
    if (value === undefined) return null;
    if (!main) return { path: 'value', message: `${found.article} ${found.noun} has no value` };
    const problem = quantityProblem(main, value);
    return problem === null ? null : { path: 'value', message: problem };
  },
};
