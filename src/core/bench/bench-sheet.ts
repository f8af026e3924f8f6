import type { Sheet, Way } from '@/core/sheet/schema';

/**
 * A sheet as one of its paths is built and measured: that path is its first, by which whatever is read
 * of a sheet is read; where an amplifier follows, it ends open.
 *
 * @param way its id; the first path where there is none such
 */
export function benchSheet(sheet: Sheet, way: string | undefined): Sheet {
  const chosen = benchWays(sheet).find((w) => w.id === way) ?? sheet.ways[0];
  if (chosen === sheet.ways[0] && !sheet.ways.some(hasAmplifier)) return sheet;
  return {
    ...sheet,
    ways: [chosen, ...sheet.ways.filter((w) => w !== chosen)].map((w) =>
      hasAmplifier(w) ? { ...w, to: { is: 'load', name: w.to.name, ohms: null, farads: null } } : w,
    ),
  };
}

/** Paths that are measured by themselves: channels of a bank, ways of a crossover, or else the first alone. */
export const benchWays = ({ ways, bank, crossover }: Sheet): readonly Way[] =>
  bank || crossover ? ways.filter((w) => w.from.is === 'source') : ways.slice(0, 1);

const hasAmplifier = ({ to }: Way): boolean => to.is === 'driver' && to.amplifier !== undefined;
