import { ReedError } from '@/core/errors';
import { readTable } from '@/core/speaker/tables/read-table';
import { MOST_POINTS, type Take } from './take';

/** What a take says: levels and perhaps phases over rising frequencies, and how far levels are off by themselves. */
export type MeasuredCurve = Pick<Take, 'frequenciesHz' | 'levelDb' | 'phaseDegrees' | 'noiseDb'>;

const MOST_DB = 400;
const MOST_DEGREES = 1e6;

/**
 * A take from a table: frequency, level in dB and, where there is a third column, degrees. All of it or
 * nothing: a table of which lines would be left out is no take of what was measured.
 *
 * @throws ReedError `document` naming the line and what is wrong with it
 */
export function readTakeTable(text: string): MeasuredCurve {
  const { rows, refused, read } = readTable(text);
  if (read.touchstone)
    throw new ReedError(
      'document',
      'The file holds what one port reflects, not a level that comes through: a take needs frequency and dB.',
    );
  if (refused.length > 0)
    throw new ReedError(
      'document',
      `Line ${refused[0].line} of the take cannot be used: ${refused[0].why}.`,
    );
  for (const { line, value, phaseDegrees = 0 } of rows)
    if (Math.abs(value) > MOST_DB || Math.abs(phaseDegrees) > MOST_DEGREES)
      throw new ReedError(
        'document',
        `Line ${line} of the take cannot be used: ${
          Math.abs(value) > MOST_DB
            ? `${value} is no level in dB (at most ${MOST_DB} either way)`
            : `${phaseDegrees} is no phase in degrees`
        }.`,
      );
  if (rows.length > MOST_POINTS)
    throw new ReedError(
      'document',
      `The take has ${rows.length} points and at most ${MOST_POINTS} are kept: thin it out.`,
    );
  return {
    frequenciesHz: rows.map((r) => r.frequencyHz),
    levelDb: rows.map((r) => r.value),
    ...(read.columns === 3 ? { phaseDegrees: rows.map((r) => r.phaseDegrees!) } : {}),
  };
}

/** Digits of a level and of a phase: what no bench reads. */
const DIGITS = 4;

/** A take as a table that this program and any other reads. */
export function takeTable({ frequenciesHz, levelDb, phaseDegrees }: MeasuredCurve): string {
  const heading = ['hz', 'db', ...(phaseDegrees ? ['degrees'] : [])].join(',');
  const rows = frequenciesHz.map((hz, k) =>
    [
      Number(hz.toPrecision(8)),
      levelDb[k].toFixed(DIGITS),
      ...(phaseDegrees ? [phaseDegrees[k].toFixed(DIGITS)] : []),
    ].join(','),
  );
  return [heading, ...rows, ''].join('\n');
}
