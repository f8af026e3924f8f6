import { ReedError } from '@/core/errors';
import { readTable } from '@/core/speaker/tables/read-table';
import { MOST_POINTS, type Take } from './take';

/** What a take says: levels and perhaps phases over rising frequencies, and how far levels are off by themselves. */
export type MeasuredCurve = Pick<Take, 'frequenciesHz' | 'levelDb' | 'phaseDegrees' | 'noiseDb'>;

const MOST_DB = 400;
const MOST_DEGREES = 1e6;

/** What a table holds: levels in dB, or ohms. */
export type TakeKind = NonNullable<Take['of']>['is'];

/**
 * A take from a table: frequency, level in dB or ohms and, where there is a third column, degrees. All of
 * it or nothing: a table of which lines would be left out is no take of what was measured. Ohms may also
 * come as a Touchstone file of one port.
 *
 * @returns ohms as dB over one ohm
 * @throws ReedError `document` naming the line and what is wrong with it
 */
export function readTakeTable(text: string, kind: TakeKind = 'level'): MeasuredCurve {
  const { rows, refused, read } = readTable(text);
  if (read.touchstone && kind === 'level')
    throw new ReedError(
      'document',
      'The file holds what one port reflects, not a level that comes through: a take needs frequency and dB.',
    );
  const [first] = refused as readonly ((typeof refused)[number] | undefined)[];
  if (first) throw unusable(first.line, first.why);
  const levelOf = kind === 'level' ? (value: number) => value : dbOfOhms;
  for (const { line, value, phaseDegrees = 0 } of rows) {
    if (kind === 'impedance' && !(value > 0))
      throw unusable(line, `${value} is no impedance in ohms: it must be above zero`);
    if (Math.abs(levelOf(value)) > MOST_DB)
      throw unusable(line, `${value} is no level in dB (at most ${MOST_DB} either way)`);
    if (Math.abs(phaseDegrees) > MOST_DEGREES)
      throw unusable(line, `${phaseDegrees} is no phase in degrees`);
  }
  if (rows.length > MOST_POINTS)
    throw new ReedError(
      'document',
      `The take has ${rows.length} points and at most ${MOST_POINTS} are kept: thin it out.`,
    );
  return {
    frequenciesHz: rows.map((r) => r.frequencyHz),
    levelDb: rows.map((r) => levelOf(r.value)),
    ...(read.columns === 3 ? { phaseDegrees: rows.map((r) => r.phaseDegrees!) } : {}),
  };
}

const unusable = (line: number, why: string): ReedError =>
  new ReedError('document', `Line ${line} of the take cannot be used: ${why}.`);

const dbOfOhms = (ohms: number): number => 20 * Math.log10(ohms);
export const ohmsOfDb = (db: number): number => 10 ** (db / 20);

/** Digits of a level and of a phase: what no bench reads. */
const DIGITS = 4;
const OHMS_DIGITS = 7;

/** A take as a table that this program and any other reads. */
export function takeTable(
  { frequenciesHz, levelDb, phaseDegrees }: MeasuredCurve,
  kind: TakeKind = 'level',
): string {
  const isLevel = kind === 'level';
  const heading = ['hz', isLevel ? 'db' : 'ohms', ...(phaseDegrees ? ['degrees'] : [])].join(',');
  const rows = frequenciesHz.map((hz, k) =>
    [
      Number(hz.toPrecision(8)),
      isLevel ? levelDb[k].toFixed(DIGITS) : Number(ohmsOfDb(levelDb[k]).toPrecision(OHMS_DIGITS)),
      ...(phaseDegrees ? [phaseDegrees[k].toFixed(DIGITS)] : []),
    ].join(','),
  );
  return [heading, ...rows, ''].join('\n');
}
