import { channelParts } from '@/core/crossover/parts-list';
import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import { formatQuantity, inWords } from '@/core/quantity/format';
import { partsOnHand, type LineOnHand } from '@/core/sheet/parts-on-hand';
import { table, text, type ReportBlock } from '../report';
import type { SectionKind } from '../sheet-report';

/** What a board is built of, what each part has to stand, and what that calls for. */
export const partsNeeded: SectionKind = {
  title: 'Parts',
  write({ sheet, library }) {
    const { lines, problems } = channelParts(sheet);
    const needed = partsOnHand(lines, library.drawer, 1);
    const rows = needed.map(({ line, priceEach }) => {
      const main = mainQuantity(partKindOf(line.kind));
      const value = main && line.value !== undefined ? printPart(main, line.value) : '';
      return [
        String(line.each),
        [value, line.device ?? line.build ?? '', partKindOf(line.kind).noun]
          .filter(Boolean)
          .join(' '),
        line.names.join(', '),
        stands(line),
        line.tolerance === undefined ? '' : `${formatQuantity(100 * line.tolerance, 'ratio')} %`,
        priceEach === null ? '' : (priceEach * line.each).toFixed(2),
      ];
    });
    const total = needed.reduce((sum, l) => sum + (l.priceEach ?? 0) * l.line.each, 0);
    const volts = inWords(sheet.crossover?.loudVolts ?? sheet.source.volts, 'volts', 3);
    const blocks: ReportBlock[] = [
      ...problems.map(text),
      table(['Pieces', 'what', 'parts', 'rated for', 'tolerance', 'price'], rows, [0, 4, 5]),
      text(
        `In all about ${total.toFixed(2)}. Ratings are twice what the parts live through at ${volts} r.m.s. of the source; supply and local codes may ask for more.`,
      ),
    ];
    return rows.length === 0 ? [] : blocks;
  },
};

/** A part that lives through so much is bought for twice that. */
const TWICE = 2;

function stands({ kind, peakVolts, watts }: LineOnHand['line']): string {
  if (kind === 'resistor' && watts !== undefined)
    return watts < 0.06 ? 'any' : `${formatQuantity(TWICE * watts, 'ratio', { digits: 2 })} W`;
  if (peakVolts === undefined) return '';
  return `${formatQuantity(Math.max(1, TWICE * peakVolts), 'ratio', { digits: 2 })} V`;
}
