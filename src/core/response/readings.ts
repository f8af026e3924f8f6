import * as z from 'zod';
import { ReedError } from '@/core/errors';
import type { QuantityKind } from '@/core/quantity/kinds';
import { edge } from './measures/edge';
import { level } from './measures/level';
import type { Measured, MeasureChoice, MeasureKind, NameWords } from './measures/measure';
import { peakFrequency, peakLevel } from './measures/peak';
import { phase } from './measures/phase';
import { plateau } from './measures/plateau';
import { range } from './measures/range';
import { slope } from './measures/slope';
import type { Reader } from './reader';

export type { Measured, MeasureField, Reference } from './measures/measure';
export { ResponseReader, type Reader, type ReadingContext } from './reader';

/** What can be read, in the order it is offered: one file and one line each. */
const MEASURES = [level, edge, phase, slope, range, peakLevel, peakFrequency, plateau] as const;

type AnyMeasure = (typeof MEASURES)[number];
type SchemasOf<T extends readonly { schema: unknown }[]> = { [I in keyof T]: T[I]['schema'] };

export const measureSchema = z.discriminatedUnion(
  'measure',
  MEASURES.map((kind) => kind.schema) as unknown as SchemasOf<typeof MEASURES>,
);

export type Measure = z.infer<AnyMeasure['schema']>;

const BY_NAME = new Map(MEASURES.map((kind) => [kind.schema.shape.measure.value, kind]));

const kindOf = ({ measure }: Measure) =>
  BY_NAME.get(measure) as unknown as MeasureKind<AnyMeasure['schema']>;

/** A way that a measure can be asked for, with the name of the measure it makes. */
export type AskedMeasure = MeasureChoice & { measure: Measure['measure'] };

export const MEASURE_CHOICES: readonly AskedMeasure[] = MEASURES.flatMap(({ schema, asked }) =>
  asked.map((choice) => ({ measure: schema.shape.measure.value, ...choice })),
);

/** The kind of number a measure gives. */
export const quantityOfMeasure = (measure: Measure): QuantityKind => kindOf(measure).quantity;

/** @throws ReedError `range` where the response has no such number */
export const readMeasure = (reader: Reader, measure: Measure): Measured =>
  kindOf(measure).read(reader, measure);

/** The number itself; NaN where the response has none such. */
export function valueOrNaN(reader: Reader, measure: Measure): number {
  try {
    return readMeasure(reader, measure).value;
  } catch (error) {
    if (error instanceof ReedError) return NaN;
    throw error;
  }
}

export const nameOfMeasure = (measure: Measure, words: NameWords): string =>
  kindOf(measure).name(measure, words);
