import { parseQuantity } from '@/core/quantity/parse';
import { messageOf } from '@/core/errors';
import { quantityOption, required, UsageError } from './command';

/** The options that name frequencies, shared by every command over a frequency axis. */
export const FREQUENCY_OPTIONS = {
  from: { type: 'string' },
  to: { type: 'string' },
  points: { type: 'string' },
  at: { type: 'string' },
} as const;

export const FREQUENCY_USAGE = '(--from F --to F --points N | --at f1,f2,…)';

/** The frequencies asked for: a list, or points spaced evenly on a log axis, ends included. */
export function frequenciesOf(values: {
  from?: string;
  to?: string;
  points?: string;
  at?: string;
}): number[] {
  if (values.at !== undefined) {
    if (values.from !== undefined || values.to !== undefined || values.points !== undefined) {
      throw new UsageError('give either --at or --from, --to and --points, not both');
    }
    return values.at.split(',').map((text) => {
      try {
        return parseQuantity(text, 'hertz');
      } catch (error) {
        throw new UsageError(`--at: ${messageOf(error)}`);
      }
    });
  }
  const from = required('from', quantityOption('from', values.from, 'hertz'));
  const to = required('to', quantityOption('to', values.to, 'hertz'));
  const points = Number(required('points', values.points));
  if (!Number.isInteger(points) || points < 1 || points > 1_000_000)
    throw new UsageError('--points must be a whole number from 1 to 1000000');
  if (!(from > 0) || !(to > 0))
    throw new UsageError('--from and --to must be above zero: the points are spaced on a log axis');
  if (points === 1) return [from];
  return Array.from({ length: points }, (_, k) =>
    k === points - 1 ? to : from * (to / from) ** (k / (points - 1)),
  );
}
