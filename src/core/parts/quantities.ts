import { boundsProblem, isBounded } from '@/core/quantity/bounds';
import { formatQuantity, inWords } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { PartKind, PartQuantity } from './part-kind';

/** What is wrong with a number that is to be set of a part, in words that follow its name; or null. */
export function quantityProblem(
  { quantity, range, signed }: PartQuantity,
  value: number,
): string | null {
  if (!Number.isFinite(value)) return 'must be a finite number';
  if (range) {
    const [least, greatest] = range;
    if (value < least) return `must be at least ${inWords(least, quantity)}`;
    return value > greatest ? `must be at most ${inWords(greatest, quantity)}` : null;
  }
  // Nothing at all, or the other way round, is as good as anything else.
  if (signed && value === 0) return null;
  return isBounded(quantity) ? boundsProblem(signed ? Math.abs(value) : value, quantity) : null;
}

/** A part's number as it is written beside it: volts and amperes with their letter. */
export const printPart = (
  { quantity }: PartQuantity,
  value: number,
  mark: DecimalMark = 'point',
): string =>
  formatQuantity(value, quantity, {
    digits: 4,
    mark,
    unit: quantity === 'volts' || quantity === 'amps',
  });

/** The number written beside a part, if it has one. */
export const mainQuantity = ({ quantities }: PartKind): PartQuantity | undefined => quantities[0];

/** The quantities of a new part. */
export const usualValues = ({ quantities }: PartKind): Record<string, number> =>
  Object.fromEntries(quantities.map((q) => [q.name, q.usual]));
