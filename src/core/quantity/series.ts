import { ReedError } from '@/core/errors';

/**
 * Preferred numbers for resistors and capacitors (IEC 60063:2015, tables 1 and 2).
 *
 * E3 to E24 are tabulated because the standard departs from the rounded geometric series
 * in eight places (2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7 and 8.2); E48 to E192 follow the
 * formula, with 9.20 in place of 9.19.
 */
const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6,
  6.2, 6.8, 7.5, 8.2, 9.1,
];

export const SERIES_NAMES = ['E3', 'E6', 'E12', 'E24', 'E48', 'E96', 'E192'] as const;
export type SeriesName = (typeof SERIES_NAMES)[number];

/** The values of one decade, 1 to just under 10. */
export function preferredNumbers(series: SeriesName): number[] {
  const count = Number(series.slice(1));
  if (count <= 24) return E24.filter((_, i) => i % (24 / count) === 0);
  return Array.from({ length: count }, (_, i) => {
    const value = Math.round(100 * 10 ** (i / count)) / 100;
    return value === 9.19 ? 9.2 : value;
  });
}

/**
 * The series value closest to `value` by ratio: what a builder would pick for it.
 *
 * @throws ReedError `range` unless `value` is positive and finite
 */
export function nearestPreferred(value: number, series: SeriesName): number {
  if (!(value > 0) || !Number.isFinite(value))
    throw new ReedError('range', `No preferred number is near ${value}.`);
  const decade = Math.floor(Math.log10(value));
  const numbers = preferredNumbers(series);
  let best = NaN;
  for (const shift of [decade - 1, decade, decade + 1]) {
    for (const number of numbers) {
      const candidate = Number(`${number}e${shift}`);
      if (
        Number.isNaN(best) ||
        Math.abs(Math.log(candidate / value)) < Math.abs(Math.log(best / value))
      )
        best = candidate;
    }
  }
  return best;
}
