import * as z from 'zod';
import { between, within } from '@/core/quantity/bounds';
import { entryFields, type LibraryKind } from './entry';

/** Points that one take may have. */
export const MOST_POINTS = 5_000;

const listOf = <T extends z.ZodType>(value: T) =>
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
  /** What it is of; where nothing is said, of the level at the output of the first path. */
  of: z
    .discriminatedUnion('is', [
      z.strictObject({
        is: z.literal('level'),
        /** Which path, by its id. */
        way: z.string().max(64).optional(),
        /** Which net of it, where that is not its output. */
        net: z.string().max(200).optional(),
      }),
      /** What the source sees, of one path or of all together: ohms, as dB over one ohm. */
      z.strictObject({ is: z.literal('impedance'), way: z.string().max(64).optional() }),
    ])
    .optional(),
  /** What came out over what went in, dB, at each frequency. */
  levelDb: listOf(between(-400, 400)),
  /** By how much it leads, degrees, where that was measured. */
  phaseDegrees: listOf(between(-1e6, 1e6)).optional(),
  /** How far each level is off by itself, dB, one standard deviation, where that was measured. */
  noiseDb: listOf(between(0, 400)).optional(),
  /** Harmonics: the level of each order against that of its fundamental, dB, at the same frequencies; null where it cannot be told. */
  harmonics: z
    .array(
      z.strictObject({
        order: z.int().min(2).max(20),
        levelDb: listOf(between(-400, 400).nullable()),
      }),
    )
    .max(19, 'holds at most 19 orders')
    .optional(),
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
  fault({ frequenciesHz, levelDb, phaseDegrees, noiseDb, harmonics = [] }) {
    const points = frequenciesHz.length;
    const lists: [path: string, noun: string, list: readonly unknown[] | undefined][] = [
      ['levelDb', 'levels', levelDb],
      ['phaseDegrees', 'phases', phaseDegrees],
      ['noiseDb', 'levels of noise', noiseDb],
      ...harmonics.map((h, i): (typeof lists)[number] => [
        `harmonics[${i}].levelDb`,
        'levels',
        h.levelDb,
      ]),
    ];
    for (const [path, noun, list] of lists)
      if (list && list.length !== points)
        return { path, message: `it lists ${list.length} ${noun} for ${points} frequencies` };
    const falls = frequenciesHz.findIndex((hz, k) => k > 0 && hz <= frequenciesHz[k - 1]);
    return falls < 0
      ? null
      : { path: `frequenciesHz[${falls}]`, message: 'must be above the frequency before it' };
  },
};
