import type { Circuit } from '@/core/circuit/schema';
import { Trial, type TriedPart } from '@/core/fit/trial';
import type { WantedReadings } from '@/core/fit/problem';
import { ResponseReader, valueOrNaN } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { outNet, outputNet } from './nets';
import { readerOptions } from './reader-options';
import type { Sheet, Wanted } from './schema';
import { missBy } from './verdict';

/** A reading that cannot be read misses by this much. */
const UNREADABLE = 10;

/**
 * The readings of a way of which something is wanted, for given values of its parts.
 *
 * @param parts whose values are tried, in their order
 */
export function wantedReadings(
  sheet: Sheet,
  way: number,
  circuit: Circuit,
  parts: readonly TriedPart[],
): WantedReadings {
  const asked = sheet.readings.flatMap(({ measure, wanted, at }) => {
    if (!wanted) return [];
    const net = at ? outputNet(sheet, at, way)?.net : outNet(sheet, way);
    return net === undefined ? [] : [{ measure, wanted, net }];
  });
  const trial = new Trial(circuit, outNet(sheet, way), parts);
  const options = readerOptions(sheet, way);
  return {
    read(values) {
      if (!trial.set(values)) return asked.map(() => NaN);
      const readers = new Map<string, ResponseReader>();
      return asked.map(({ measure, net }) => {
        let reader = readers.get(net);
        if (!reader)
          readers.set(net, (reader = new ResponseReader(responseOf(trial.analysis, net), options)));
        return valueOrNaN(reader, measure);
      });
    },
    missed: (read) =>
      asked.reduce((sum, { wanted }, i) => {
        if (Number.isNaN(read[i])) return sum + UNREADABLE;
        return sum + Math.abs(missBy(wanted, read[i])) / roomOf(wanted);
      }, 0),
  };
}

/** What a miss is measured by. */
function roomOf(wanted: Wanted): number {
  if (wanted.is !== 'near') return Math.max(0.1, Math.abs(wanted.value) * 0.01);
  const room = wanted.relative ? Math.abs(wanted.value) * wanted.tolerance : wanted.tolerance;
  return Math.max(room, 1e-9);
}
