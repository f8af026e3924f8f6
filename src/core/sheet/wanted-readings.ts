import type { Circuit } from '@/core/circuit/schema';
import { Trial, type TriedPart } from '@/core/fit/trial';
import type { WantedReadings } from '@/core/fit/problem';
import { outNet, outputNet } from './nets';
import { readingsReader } from './read-readings';
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
  // A wish for what is read at a place that is gone is left aside.
  const asked = sheet.readings.flatMap(({ measure, wanted, at }) =>
    wanted && (!at || outputNet(sheet, at, way))
      ? [{ measure, wanted, ...(at ? { at } : {}) }]
      : [],
  );
  const trial = new Trial(circuit, outNet(sheet, way), parts);
  const readAll = readingsReader(sheet, way, asked);
  return {
    read: (values) => (trial.set(values) ? readAll(trial.analysis) : asked.map(() => NaN)),
    missed: (read) =>
      asked.reduce((sum, { wanted }, i) => {
        if (Number.isNaN(read[i])) return sum + UNREADABLE;
        return sum + Math.abs(missBy(wanted, read[i])) / roomOf(wanted);
      }, 0),
    off: (read) =>
      asked.map(({ wanted }, i) =>
        wanted.is === 'near'
          ? (read[i] - wanted.value) / roomOf(wanted)
          : // A limit is kept with some of its room to spare: real parts need it.
            missBy(withRoom(wanted), read[i]) / roomOf(wanted),
      ),
  };
}

/** A limit further inside by what misses of it are measured by. */
const withRoom = (wanted: Exclude<Wanted, { is: 'near' }>): Wanted => ({
  ...wanted,
  value: wanted.value + (wanted.is === 'at-least' ? 1 : -1) * roomOf(wanted),
});

/** What a miss is measured by. */
function roomOf(wanted: Wanted): number {
  if (wanted.is !== 'near') return Math.max(0.1, Math.abs(wanted.value) * 0.01);
  const room = wanted.relative ? Math.abs(wanted.value) * wanted.tolerance : wanted.tolerance;
  return Math.max(room, 1e-9);
}
