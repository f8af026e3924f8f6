import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import { entryFields, type LibraryKind } from './entry';

/** Points that one take may have. */
export const MOST_POINTS = 5_000;

const listOf = (value: z.ZodNumber) =>
  z
    .array(value)
    .min(1, 'must list at least one point')
    .max(MOST_POINTS, `holds at most ${MOST_POINTS} points`);

const takeSchema = z.strictObject({
  ...entryFields('jaunty-reed/take'),
  /** When it was measured. */
  at: z.iso.datetime({ error: 'must be a date and time in ISO form' }),
  /** Rising. */
  frequenciesHz: listOf(within('hertz')),
  /** What came out over what went in, dB, at each frequency. */
  levelDb: listOf(between(-400, 400)),
  /** By how much it leads, degrees, where that was measured. */
  phaseDegrees: listOf(between(-1e6, 1e6)).optional(),
  note: z.string().max(2000, 'must be at most 2000 characters long').default(''),
  /** What was connected in order to measure it, where the circuit feels that. */
  meter: z
    .strictObject({
      name: z.string().max(120, 'must be at most 120 characters long'),
      ohms: within('ohms'),
      farads: within('farads'),
    })
    .optional(),
});

/** A measurement of a board. */
export type Take = z.infer<typeof takeSchema>;

export const takeKind: LibraryKind<Take> = {
  table: 'takes',
  noun: 'take',
  schema: takeSchema,
  fault({ frequenciesHz, levelDb, phaseDegrees }) {
    const points = frequenciesHz.length;
    if (levelDb.length !== points)
      return {
        path: 'levelDb',
        message: `it lists ${levelDb.length} levels for ${points} frequencies`,
      };
    if (phaseDegrees && phaseDegrees.length !== points)
      return {
        path: 'phaseDegrees',
        message: `it lists ${phaseDegrees.length} phases for ${points} frequencies`,
      };
    const falls = frequenciesHz.findIndex((hz, k) => k > 0 && hz <= frequenciesHz[k - 1]);
    return falls < 0
      ? null
      : { path: `frequenciesHz[${falls}]`, message: 'must be above the frequency before it' };
  },
};
