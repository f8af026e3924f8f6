import Papa from 'papaparse';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { inWords } from '@/core/quantity/format';
import type { LineOnHand } from '@/core/sheet/parts-on-hand';

/**
 * A parts list as comma-separated text (RFC 4180). Values stand as they are read aloud and in SI units;
 * it can be read as a stock again.
 */
export function partsCsv(lines: readonly LineOnHand[]): string {
  const rows = lines.map(({ line, needed, onHand, lacking, priceEach }) => {
    const { kind, value, device, build, names, each, peakVolts, watts } = line;
    const main = mainQuantity(partKindOf(kind));
    const rounded = (x: number | undefined) => (x === undefined ? '' : Number(x.toPrecision(3)));
    return [
      kind,
      main && value !== undefined ? inWords(value, main.quantity, 5) : '',
      value ?? '',
      device ?? build ?? '',
      names.join(' '),
      each,
      needed,
      onHand,
      lacking,
      priceEach ?? '',
      rounded(peakVolts),
      rounded(watts),
    ];
  });
  const fields = [
    'kind',
    'value',
    'value_si',
    'name',
    'parts',
    'each_board',
    'quantity',
    'on_hand',
    'lacking',
    'price',
    'peak_volts',
    'watts',
  ];
  return `${Papa.unparse({ fields, data: rows }, { newline: '\r\n' })}\r\n`;
}
