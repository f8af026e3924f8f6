import type { Sheet, Way } from '@/core/sheet/schema';

/**
 * The paths of a sheet as one of them is built and measured: that path is the first, by which whatever is
 * read of a sheet is read; where an amplifier follows, it ends open.
 *
 * @param way its id; the first path where there is none such
 */
export function waysAtBench(sheet: Sheet, way: string | undefined): Way[] {
  const { ways } = sheet;
  const chosen = benchWays(sheet).find((w) => w.id === way) ?? ways[0];
  if (chosen === ways[0] && !ways.some(hasAmplifier)) return ways;
  return [chosen, ...ways.filter((w) => w !== chosen)].map((w) =>
    hasAmplifier(w) ? { ...w, to: { is: 'load', name: w.to.name, ohms: null, farads: null } } : w,
  );
}

/** A sheet with its paths so. */
export const benchSheet = (sheet: Sheet, way: string | undefined): Sheet => ({
  ...sheet,
  ways: waysAtBench(sheet, way),
});

/** Paths that are measured by themselves: channels of a bank, ways of a crossover, or else the first alone. */
export const benchWays = ({ ways, bank, crossover }: Sheet): readonly Way[] =>
  bank || crossover ? ways.filter((w) => w.from.is === 'source') : ways.slice(0, 1);

const hasAmplifier = ({ to }: Way): boolean => to.is === 'driver' && to.amplifier !== undefined;
