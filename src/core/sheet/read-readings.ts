import type { AcAnalysis } from '@/core/analysis/ac/ac';
import { ResponseReader, valueOrNaN } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { outNet, outputNet } from './nets';
import { readerOptions } from './reader-options';
import type { Reading, Sheet } from './schema';

/**
 * Reads readings of a way off one analysis of its circuit after the other, in their order; NaN where
 * there is none, or the place where it is read is gone.
 */
export function readingsReader(
  sheet: Sheet,
  way: number,
  readings: readonly Pick<Reading, 'measure' | 'at'>[] = sheet.readings,
): (analysis: AcAnalysis) => number[] {
  const options = readerOptions(sheet, way);
  const asked = readings.map(({ measure, at }) => ({
    measure,
    net: at ? outputNet(sheet, at, way)?.net : outNet(sheet, way),
  }));
  return (analysis) => {
    const readers = new Map<string, ResponseReader>();
    return asked.map(({ measure, net }) => {
      if (net === undefined || !analysis.system.netIndex.has(net)) return NaN;
      let reader = readers.get(net);
      if (!reader)
        readers.set(net, (reader = new ResponseReader(responseOf(analysis, net), options)));
      return valueOrNaN(reader, measure);
    });
  };
}
