import { ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import { quoted } from '@/core/text';

/** Most deviations that are kept of a kind of part, and how far one may be off, as a part of its value. */
export const MEASURED_LIMITS = { pieces: 500, least: -0.9, most: 9 } as const;

/**
 * Deviations of pieces that were measured: per cents, one after the other (“-0.4 1.2 0.3”), or the
 * nominal value, a colon, and what the pieces measured (“10n: 9.87n 10.1n”), as many lines of either as
 * there are.
 *
 * @param kind of the values
 * @returns each as a part of the value
 * @throws ReedError `quantity` naming what cannot be read, `range` where one is too far off
 */
export function readMeasured(text: string, kind: QuantityKind, mark: DecimalMark): number[] {
  const separator = mark === 'comma' ? /[\s;]+/ : /[\s;]+|,(?=\s)/;
  const found = text.split(/\n/).flatMap((line) => {
    const [head, rest] = line.includes(':') ? line.split(/:(.*)/s) : [undefined, line];
    const nominal = head === undefined ? undefined : parseQuantity(head, kind, mark);
    if (nominal !== undefined && !(nominal > 0))
      throw new ReedError(
        'quantity',
        `${quoted(head!)} is no value that pieces could be off from.`,
      );
    return rest
      .replace(/\s+%/g, '%')
      .split(separator)
      .filter((word) => word !== '' && word !== ',')
      .map((word) => {
        const off =
          nominal === undefined
            ? parseQuantity(word.replace(/[%,]+$/, ''), 'ratio', mark) / 100
            : parseQuantity(word.replace(/,$/, ''), kind, mark) / nominal - 1;
        if (off < MEASURED_LIMITS.least || off > MEASURED_LIMITS.most)
          throw new ReedError(
            'range',
            `${quoted(word)} is ${percentOf(off, mark)} off: that is another part. Leave it out, or say which value it was meant to be, as 10n: 9.87n.`,
          );
        return off;
      });
  });
  if (found.length > MEASURED_LIMITS.pieces)
    throw new ReedError(
      'range',
      `${found.length} pieces are more than are needed: at most ${MEASURED_LIMITS.pieces} are kept.`,
    );
  return found;
}

/** Deviations as they are typed again. */
export const measuredText = (deviations: readonly number[], mark: DecimalMark): string =>
  deviations.map((off) => percentOf(off, mark).replace(/\s?%/, '').replace('−', '-')).join(' ');

/** What is told of them: how many, the mean, and the greatest. */
export function measuredWords(deviations: readonly number[], mark: DecimalMark): string {
  if (deviations.length === 0) return 'none';
  const mean = deviations.reduce((a, b) => a + b, 0) / deviations.length;
  const most = deviations.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a));
  const pieces = deviations.length === 1 ? '1 piece' : `${deviations.length} pieces`;
  return `${pieces}, ${percentOf(mean, mark)} in the mean, ${percentOf(most, mark)} at the most`;
}

const percentOf = (off: number, mark: DecimalMark): string =>
  `${formatQuantity(off * 100, 'ratio', { digits: 4, mark })} %`;
