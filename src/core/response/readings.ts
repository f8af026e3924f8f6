import { z } from 'zod';
import type { QuantityKind } from '@/core/quantity/kinds';
import { edge, edgeSchema } from './measures/edge';
import { level, levelSchema } from './measures/level';
import type { Measured, MeasureKind, NameWords } from './measures/measure';
import { peakFrequency, peakFrequencySchema, peakLevel, peakLevelSchema } from './measures/peak';
import { phase, phaseSchema } from './measures/phase';
import { plateau, plateauSchema } from './measures/plateau';
import { range, rangeSchema } from './measures/range';
import { slope, slopeSchema } from './measures/slope';
import type { ResponseReader } from './reader';

export type { Measured, Reference } from './measures/measure';
export { ResponseReader, type ReadingContext } from './reader';

/** What can be read off a response: one file and one line each. */
export const measureSchema = z.discriminatedUnion('measure', [
  levelSchema,
  phaseSchema,
  edgeSchema,
  peakLevelSchema,
  peakFrequencySchema,
  plateauSchema,
  rangeSchema,
  slopeSchema,
]);

export type Measure = z.infer<typeof measureSchema>;

const KINDS: { [N in Measure['measure']]: MeasureKind<Extract<Measure, { measure: N }>> } = {
  level,
  phase,
  edge,
  'peak-level': peakLevel,
  'peak-frequency': peakFrequency,
  plateau,
  range,
  slope,
};

const kindOf = (measure: Measure) => KINDS[measure.measure] as MeasureKind<Measure>;

/** The kind of number a measure gives. */
export const quantityOfMeasure = (measure: Measure): QuantityKind => kindOf(measure).quantity;

/** @throws ReedError `range` where the response has no such number */
export const readMeasure = (reader: ResponseReader, measure: Measure): Measured =>
  kindOf(measure).read(reader, measure);

export const nameOfMeasure = (measure: Measure, words: NameWords): string =>
  kindOf(measure).name(measure, words);
