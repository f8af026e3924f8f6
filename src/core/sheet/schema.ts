import { z } from 'zod';
import { opAmpModelSchema } from '@/core/circuit/devices/op-amp';
import { finite, notNegative, positive } from '@/core/circuit/part';
import { bankSchema } from '@/core/bank/schema';
import { askSchema } from '@/core/design/ask';
import { SERIES_NAMES } from '@/core/quantity/series';
import { measureSchema } from '@/core/response/readings';

const id = z.string().min(1).max(64);
const name = z.string().max(120);
const when = z.iso.datetime({ error: 'must be a date and time in ISO form' });

/** One topology with its values, in a path. */
export const stageSchema = z.strictObject({
  id,
  topology: z.string(),
  /** "ask": redesigned whenever the ask changes; "hand": put there by hand and left alone. */
  origin: z.enum(['ask', 'hand']),
  bypassed: z.boolean().default(false),
  /** The figures it was designed for, and the capacitor it was designed from. */
  target: z.strictObject({
    f0Hz: positive,
    q: positive.optional(),
    gain: finite.optional(),
    zeroHz: positive.optional(),
    boost: positive.optional(),
    depth: positive.optional(),
    poles: z
      .array(z.strictObject({ f0Hz: positive, q: positive.optional() }))
      .max(12)
      .optional(),
    zerosHz: z.array(positive).max(8).optional(),
    own: z.record(z.string(), finite).optional(),
  }),
  farads: positive.optional(),
  ohms: positive.optional(),
  /** The chosen real values, by part of the topology's drawing. */
  values: z.record(z.string(), positive),
});

/** One signal path: source, stages, load. A crossover has several. */
export const waySchema = z.strictObject({
  id,
  name,
  source: z.strictObject({ name, ohms: notNegative, volts: positive.default(1) }),
  stages: z.array(stageSchema).max(40),
  load: z.strictObject({ name, ohms: positive.nullable(), farads: positive.nullable() }),
});

/** What the wanted column says of a reading, in the unit of its measure. */
export const wantedSchema = z.discriminatedUnion('is', [
  z.strictObject({
    is: z.literal('near'),
    value: finite,
    tolerance: notNegative,
    relative: z.boolean(),
  }),
  z.strictObject({ is: z.literal('at-least'), value: finite }),
  z.strictObject({ is: z.literal('at-most'), value: finite }),
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
});

/** What a keep holds and going back restores: the design, without its history. */
export const designSchema = z.strictObject({
  ask: askSchema,
  parts: partChoicesSchema,
  ways: z.array(waySchema).min(1).max(40),
  readings: z.array(readingSchema).max(200),
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
  fromHz: positive,
  toHz: positive,
});

export const SHEET_VERSION = 1;

/** The sheet format, version 1. Published as JSON Schema in docs/formats. */
export const sheetSchema = z.strictObject({
  format: z.literal('jaunty-reed/sheet', { error: 'must be "jaunty-reed/sheet"' }),
  version: z.literal(SHEET_VERSION),
  id,
  title: name.min(1, 'must not be empty'),
  createdAt: when,
  updatedAt: when,
  /** Rises by one at every save; two tabs notice each other by it. */
  revision: z.int().nonnegative(),
  /** The demo sheet it is, if any. */
  demo: z.string().optional(),
  ...designSchema.shape,
  keeps: z.array(keepSchema).max(100),
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
