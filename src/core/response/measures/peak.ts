import * as z from 'zod';
import { ReedError } from '@/core/errors';
import { inWords } from '@/core/quantity/format';
import type { Reader, Summit } from '../reader';
import { defineMeasure } from './measure';

const peakLevelSchema = z.strictObject({ measure: z.literal('peak-level') });
const peakFrequencySchema = z.strictObject({ measure: z.literal('peak-frequency') });

/** A level that rises by more within the last octave has not come to its highest, dB. */
const RISING_DB = 0.01;

function summitOf(reader: Reader): Summit {
  const summit = reader.highest();
  if (summit.isPeak) return summit;
  const { fromHz, toHz } = reader.span;
  for (const [end, inside] of [
    [fromHz, fromHz * 2],
    [toHz, toHz / 2],
  ])
    if (
      reader.levelAt(end) > summit.value - 1e-6 &&
      reader.levelAt(inside) < summit.value - RISING_DB
    )
      throw new ReedError(
        'range',
        `There is no highest point: the level still rises at ${inWords(end, 'hertz')}, where the search ends.`,
      );
  return summit;
}

export const peakLevel = defineMeasure({
  schema: peakLevelSchema,
  needs: 'transfer',
  quantity: 'decibels',
  read(reader) {
    const { value, hz } = summitOf(reader);
    return { value, atHz: hz };
  },
  name: () => 'Highest point',
  asked: [{ title: 'Highest point', fields: [] }],
});

export const peakFrequency = defineMeasure({
  schema: peakFrequencySchema,
  needs: 'transfer',
  quantity: 'hertz',
  read(reader) {
    const { hz, isPeak } = summitOf(reader);
    if (!isPeak)
      throw new ReedError('range', 'There is no peak: the level is highest where it is flat.');
    return { value: hz, atHz: hz };
  },
  name: () => 'Frequency of the highest point',
  asked: [{ title: 'Frequency of the highest point', fields: [] }],
});
