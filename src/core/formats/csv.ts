import Papa from 'papaparse';
import type { Evaluation } from '@/core/sheet/evaluate';
import { layerName } from '@/core/sheet/layer-name';
import type { Sheet } from '@/core/sheet/schema';

/**
 * The response of every layer as comma-separated text (RFC 4180): one block of rows a layer, since
 * each is sampled where its own curve bends. Columns: layer, frequency, level, phase; decimal points.
 */
export function responseCsv(evaluation: Evaluation, sheet: Pick<Sheet, 'keeps'>): string {
  const rows = evaluation.layers.flatMap(({ id, trace }) =>
    Array.from(trace.frequenciesHz, (hz, k) => [
      layerName(id, sheet),
      trimmed(hz, 9),
      trimmed(trace.levelDb[k], 7),
      trimmed(trace.phaseDegrees[k], 7),
    ]),
  );
  return (
    Papa.unparse(
      { fields: ['layer', 'frequency_hz', 'level_db', 'phase_degrees'], data: rows },
      { newline: '\r\n' },
    ) + '\r\n'
  );
}

/** A number in so many digits, as it is written into files. */
export const trimmed = (x: number, digits: number): string =>
  Number(x.toPrecision(digits)).toString();
