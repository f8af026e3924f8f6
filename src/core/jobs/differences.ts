import type { SmallCurve } from '@/core/bank/card-curve';
import type { Change } from '@/core/differences/change';
import { changesBetween } from '@/core/differences/differences';
import { figuresBetween, type FigureBetween } from '@/core/differences/figures';
import { messageOf, ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { cardCurve } from './card-curve';
import type { Job } from './job';

/** What two states of a sheet differ in, for people: in words, in numbers and as curves. */
export interface Differences {
  changes: Change[];
  figures: FigureBetween[];
  /** Of the first state, the second, and of what is laid over besides; null where there is none. */
  curves: (SmallCurve | null)[];
  problems: string[];
}

/**
 * Two states of a sheet beside each other.
 *
 * @param entries names of what they refer to, by “table/id”
 * @param over a third state, of which only the curve is drawn
 */
export const differences: Job<
  { before: Sheet; after: Sheet; over?: Sheet; entries?: ReadonlyMap<string, string> },
  never,
  Differences
> = async ({ before, after, over, entries }, context) => {
  const problems: string[] = [];
  const attempt = async <T>(compute: () => T | Promise<T>, otherwise: T): Promise<T> => {
    await context.pause();
    try {
      return await compute();
    } catch (error) {
      if (!(error instanceof ReedError) || error.code === 'stopped') throw error;
      problems.push(messageOf(error));
      return otherwise;
    }
  };
  // All of them are looked at over what the later one is.
  const seen = (sheet: Sheet): Sheet => ({ ...sheet, view: after.view });
  const curves: (SmallCurve | null)[] = [];
  for (const sheet of over ? [before, after, over] : [before, after])
    curves.push(await attempt(() => cardCurve({ sheet: seen(sheet) }, context), null));
  return {
    changes: changesBetween(before, after, entries),
    figures: await attempt(() => figuresBetween(before, after), []),
    curves,
    problems: [...new Set(problems)],
  };
};
