import { z } from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp';
import { notNegative, positive } from '@/core/circuit/part';
import { bankSchema } from '@/core/bank/schema';
import { askSchema } from '@/core/design/ask';
import { between, within } from '@/core/quantity/bounds';
import { SERIES_NAMES } from '@/core/quantity/series';
import { measureSchema } from '@/core/response/readings';
import { isVisible } from '@/core/text';

/** How much one sheet may hold. Whoever would go over is told the limit where it happens. */
export const SHEET_LIMITS = {
  name: 120,
  stages: 40,
  ways: 40,
  readings: 200,
  keeps: 100,
  /** In the sheet and all its keeps together. */
  allStages: 8_000,
} as const;

const id = z.string().min(1, 'must not be empty').max(64, 'must be at most 64 characters long');
const name = z
  .string()
  .max(SHEET_LIMITS.name, `must be at most ${SHEET_LIMITS.name} characters long`);
const when = z.iso.datetime({ error: 'must be a date and time in ISO form' });
const hertz = within('hertz');
const q = between(0.01, 10_000);
const gain = between(-1e6, 1e6);
/** Anything a reading or a wish can be, in the unit of its measure. */
const figure = between(-1e12, 1e12);

/** One topology with its values, in a path. */
export const stageSchema = z.strictObject({
  id,
  topology: z.string().max(64, 'must be at most 64 characters long'),
  /** "ask": redesigned whenever the ask changes; "hand": put there by hand and left alone. */
  origin: z.enum(['ask', 'hand']),
  bypassed: z.boolean().default(false),
  /** The figures it was designed for, and the capacitor it was designed from. */
  target: z.strictObject({
    f0Hz: hertz,
    q: q.optional(),
    gain: gain.optional(),
    zeroHz: hertz.optional(),
    boost: between(1e-6, 1e6).optional(),
    depth: between(1e-9, 1e3).optional(),
    poles: z
      .array(z.strictObject({ f0Hz: hertz, q: q.optional() }))
      .max(12)
      .optional(),
    zerosHz: z.array(hertz).max(8).optional(),
    own: z.record(z.string().max(40), between(-1e12, 1e12)).optional(),
  }),
  farads: within('farads').optional(),
  ohms: within('ohms').optional(),
  /** The chosen real values, by part of the topology's drawing. */
  values: z.record(z.string().max(40), positive),
});

/** One signal path: source, stages, load. A crossover has several. */
export const waySchema = z.strictObject({
  id,
  name,
  source: z.strictObject({
    name,
    ohms: notNegative.max(1e10, 'must be at most 10 GΩ'),
    volts: within('volts').default(1),
  }),
  stages: z
    .array(stageSchema)
    .max(SHEET_LIMITS.stages, `holds at most ${SHEET_LIMITS.stages} stages: remove one first`),
  load: z.strictObject({
    name,
    ohms: within('ohms').nullable(),
    farads: within('farads').nullable(),
  }),
});

/** What the wanted column says of a reading, in the unit of its measure. */
export const wantedSchema = z.discriminatedUnion('is', [
  z.strictObject({
    is: z.literal('near'),
    value: figure,
    tolerance: notNegative.max(1e12),
    relative: z.boolean(),
  }),
  z.strictObject({ is: z.literal('at-least'), value: figure }),
  z.strictObject({ is: z.literal('at-most'), value: figure }),
]);

export const readingSchema = z.strictObject({
  id,
  name: name.optional(),
  measure: measureSchema,
  wanted: wantedSchema.optional(),
});

export const partChoicesSchema = z.strictObject({
  opAmp: z.strictObject({ name, model: z.union([z.literal('ideal'), opAmpModelSchema]) }),
  resistors: z.enum([...SERIES_NAMES, 'exact']),
  capacitors: z.enum([...SERIES_NAMES, 'exact']),
  inductors: z.enum([...SERIES_NAMES, 'exact']).default('E12'),
});

/** What a keep holds and going back restores: the design, without its history. */
export const designSchema = z.strictObject({
  ask: askSchema,
  parts: partChoicesSchema,
  ways: z
    .array(waySchema)
    .min(1, 'must list at least one path')
    .max(SHEET_LIMITS.ways, `holds at most ${SHEET_LIMITS.ways} paths`),
  readings: z
    .array(readingSchema)
    .max(
      SHEET_LIMITS.readings,
      `holds at most ${SHEET_LIMITS.readings} readings: remove one first`,
    ),
  /** Present in a bank: its ways are the channels, in this order. */
  bank: bankSchema.optional(),
});

export const keepSchema = z.strictObject({
  id,
  name,
  at: when,
  shown: z.boolean().default(true),
  design: designSchema,
});

export const LENSES = ['level', 'phase', 'delay', 'time', 'harmonics', 'map'] as const;
export type Lens = (typeof LENSES)[number];

export const viewSchema = z.strictObject({
  lens: z.enum(LENSES),
  fromHz: hertz,
  toHz: hertz,
});

export const SHEET_VERSION = 1;

/** The sheet format, version 1. Published as JSON Schema in docs/formats. */
export const sheetSchema = z.strictObject({
  format: z.literal('jaunty-reed/sheet', { error: 'must be "jaunty-reed/sheet"' }),
  version: z.literal(SHEET_VERSION),
  id,
  title: name.refine(isVisible, 'must have a letter, a digit or a sign'),
  createdAt: when,
  updatedAt: when,
  /** Rises by one at every save; two tabs notice each other by it. */
  revision: z.int().nonnegative('must not be negative'),
  /** The demo sheet it is, if any. */
  demo: z.string().max(64).optional(),
  ...designSchema.shape,
  keeps: z
    .array(keepSchema)
    .max(SHEET_LIMITS.keeps, `holds at most ${SHEET_LIMITS.keeps} keeps: remove one first`),
  /** Room for what later versions hold: control inputs, and boards with their takes. */
  controls: z.array(z.never()).default([]),
  boards: z.array(z.never()).default([]),
  view: viewSchema,
});

export type Sheet = z.infer<typeof sheetSchema>;
export type SheetDesign = z.infer<typeof designSchema>;
export type Way = z.infer<typeof waySchema>;
export type Stage = z.infer<typeof stageSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type Wanted = z.infer<typeof wantedSchema>;
export type Keep = z.infer<typeof keepSchema>;
export type PartChoices = z.infer<typeof partChoicesSchema>;
export type SheetView = z.infer<typeof viewSchema>;
