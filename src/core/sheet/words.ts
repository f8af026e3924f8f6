import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { nameOfMeasure, quantityOfMeasure, type Measure } from '@/core/response/readings';
import type { Output, Reading, Wanted } from './schema';

const NOTHING_DB = -200;

/**
 * A reading's name in words, unless it has one of its own, and where it is read if that is not the
 * end of the path.
 *
 * @param stages ids of the path's stages in their order
 */
export function readingName(
  { name, measure, at }: Pick<Reading, 'name' | 'measure' | 'at'>,
  mark: DecimalMark = 'point',
  stages: readonly string[] = [],
): string {
  if (name) return name;
  const words = nameOfMeasure(measure, {
    hz: (value) => formatQuantity(value, 'hertz', { unit: true, mark }),
    number: (value) => formatQuantity(value, 'ratio', { mark }),
  });
  return at ? `${words}, ${outputName(at, stages)}` : words;
}

/** “behind stage 2”, “band of stage 2”. */
export function outputName({ stage, port }: Output, stages: readonly string[]): string {
  const place = stages.indexOf(stage);
  const which = place < 0 ? 'a stage that is gone' : `stage ${place + 1}`;
  return port === undefined ? `behind ${which}` : `${port} of ${which}`;
}

/** A measured value as the table prints it, with its unit. */
export function printMeasured(
  measure: Measure,
  value: number,
  mark: DecimalMark = 'point',
): string {
  const kind = quantityOfMeasure(measure);
  switch (kind) {
    case 'hertz':
      return formatQuantity(value, 'hertz', { digits: 4, unit: true, mark });
    case 'degrees':
      return `${formatFixed(value, 1, mark)}°`;
    case 'slope':
      return `${formatFixed(value, 2, mark)} dB/oct`;
    default:
      // Below this a level says nothing but how the arithmetic rounds.
      return value < NOTHING_DB
        ? `under ${formatFixed(NOTHING_DB, 0, mark)} dB`
        : `${formatFixed(value, 2, mark)} dB`;
  }
}

/** The wanted column in words. */
export function printWanted(measure: Measure, wanted: Wanted, mark: DecimalMark = 'point'): string {
  const kind = quantityOfMeasure(measure);
  const number = (value: number) =>
    kind === 'hertz'
      ? formatQuantity(value, 'hertz', { digits: 3, unit: true, mark })
      : `${formatQuantity(value, 'ratio', { mark, digits: 4 })}${kind === 'degrees' ? '°' : kind === 'slope' ? '\u00a0dB/oct' : '\u00a0dB'}`;
  switch (wanted.is) {
    case 'near':
      return wanted.relative
        ? `${number(wanted.value)} ±\u00a0${formatQuantity(wanted.tolerance * 100, 'ratio', { mark })}\u00a0%`
        : `${number(wanted.value)} ±\u00a0${formatQuantity(wanted.tolerance, 'ratio', { mark })}`;
    case 'at-least':
      return `at least ${number(wanted.value)}`;
    case 'at-most':
      return `at most ${number(wanted.value)}`;
  }
}
