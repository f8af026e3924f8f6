import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { MEASURE_QUANTITY, type Measure } from '@/core/response/readings';
import type { Reading, Wanted } from './schema';

/** A reading's name in words, unless it has one of its own. */
export function readingName(
  { name, measure }: Pick<Reading, 'name' | 'measure'>,
  mark: DecimalMark = 'point',
): string {
  if (name) return name;
  const hz = (value: number) => formatQuantity(value, 'hertz', { unit: true, mark });
  switch (measure.measure) {
    case 'level':
      return `Level at ${hz(measure.atHz)}`;
    case 'phase':
      return `Phase at ${hz(measure.atHz)}`;
    case 'edge': {
      const from = measure.reference;
      const under =
        from.from === 'peak'
          ? ' under the peak'
          : from.from === 'level'
            ? ` under ${formatFixed(from.db, 1, mark)} dB`
            : from.from === 'frequency'
              ? ` under ${hz(from.atHz)}`
              : '';
      return `${measure.side === 'upper' ? 'Upper' : 'Lower'} edge, ${formatQuantity(measure.downDb, 'ratio', { mark })} dB down${under}`;
    }
    case 'peak-level':
      return 'Highest point';
    case 'peak-frequency':
      return 'Frequency of the highest point';
    case 'plateau':
      return 'Plateau';
    case 'slope':
      return `Slope, ${hz(measure.fromHz)} to ${hz(measure.toHz)}`;
  }
}

/** A measured value as the table prints it, with its unit. */
export function printMeasured(
  measure: Measure,
  value: number,
  mark: DecimalMark = 'point',
): string {
  const kind = MEASURE_QUANTITY[measure.measure];
  switch (kind) {
    case 'hertz':
      return formatQuantity(value, 'hertz', { digits: 4, unit: true, mark });
    case 'degrees':
      return `${formatFixed(value, 1, mark)}°`;
    case 'slope':
      return `${formatFixed(value, 2, mark)} dB/oct`;
    default:
      return `${formatFixed(value, 2, mark)} dB`;
  }
}

/** The wanted column in words. */
export function printWanted(measure: Measure, wanted: Wanted, mark: DecimalMark = 'point'): string {
  const kind = MEASURE_QUANTITY[measure.measure];
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
