import Papa from 'papaparse';
import type { CrossoverPicture } from '@/core/crossover/picture';
import { layerName } from '@/core/sheet/layer-name';
import type { Sheet } from '@/core/sheet/schema';
import { trimmed } from './csv';

/**
 * What a crossover’s screen shows of its curves as comma-separated text (RFC 4180): a row for each
 * layer and frequency with level and phase of the sum and of every way, and the load of each amplifier.
 */
export function crossoverCsv(
  { frequenciesHz, layers }: CrossoverPicture,
  sheet: Pick<Sheet, 'keeps' | 'ways'>,
): string {
  const names = sheet.ways.map((w) => w.name);
  const loads = Math.max(0, ...layers.map((l) => l.loads.length));
  const numbered = (n: number) => (loads > 1 ? `_${n + 1}` : '');
  const fields = [
    'layer',
    'frequency_hz',
    'sum_db',
    'sum_degrees',
    ...names.flatMap((name) => [`${name}_db`, `${name}_degrees`]),
    ...Array.from({ length: loads }, (_, n) => [
      `load_ohms${numbered(n)}`,
      `load_degrees${numbered(n)}`,
    ]).flat(),
  ];
  const rows = layers.flatMap((layer) =>
    Array.from(frequenciesHz, (hz, k) => [
      layer.id === 'nominal' ? 'nominal loads' : layerName(layer.id, sheet),
      trimmed(hz, 9),
      trimmed(layer.sumDb[k], 7),
      trimmed(layer.sumDegrees[k], 7),
      // Of a kept state with other ways, those that this one has too.
      ...sheet.ways.flatMap(({ id }) => {
        const way = layer.ways.find((w) => w.id === id);
        return way ? [trimmed(way.levelDb[k], 7), trimmed(way.degrees[k], 7)] : ['', ''];
      }),
      ...Array.from({ length: loads }, (_, n) => {
        const load = layer.loads[n];
        return load ? [trimmed(load.ohms[k], 7), trimmed(load.degrees[k], 7)] : ['', ''];
      }).flat(),
    ]),
  );
  return `${Papa.unparse({ fields, data: rows }, { newline: '\r\n' })}\r\n`;
}
