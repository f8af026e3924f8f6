import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Joint } from '@/core/sheet/joints';
import type { Sheet } from '@/core/sheet/schema';

/** A stage is dragged down when its joint loses more than this. */
export const WARN_DB = -0.5;

/** A joint that loses more than this has remedies worth looking for. */
export const MENDABLE_DB = -0.05;

/** The rule of thumb: a load of so many times what drives it. */
export const TIMES = 10;

/** The rule of thumb beside the exact loss: what it asks for, and what it makes of this joint. */
export function tenTimesWords(
  { sourceOhms, loadOhms, lossDb }: Pick<Joint, 'sourceOhms' | 'loadOhms' | 'lossDb'>,
  mark: DecimalMark,
): string {
  const times = loadOhms / sourceOhms;
  if (!(times < 1000)) return 'Far more than ten times: nothing is lost that matters.';
  const plain = -20 * Math.log10(1 + 1 / times);
  const db = (value: number) => `${formatFixed(value, 2, mark)} dB`;
  return `The rule of thumb wants ${TIMES} times, here it is ${formatQuantity(times, 'ratio', { digits: 2, mark })}; magnitudes alone would make it ${db(plain)}, exactly it is ${db(lossDb)}.`;
}

/** An impedance beside a joint. */
export const ohmsWords = (value: number, mark: DecimalMark) =>
  Number.isFinite(value) ? formatQuantity(value, 'ohms', { mark, digits: 2 }) : 'open';

/** What a joint says. */
export function jointWords({ sourceOhms, loadOhms, lossDb }: Joint, mark: DecimalMark) {
  const unit = Number.isFinite(loadOhms) ? ' Ω' : '';
  return {
    ohms: `${ohmsWords(sourceOhms, mark)} → ${ohmsWords(loadOhms, mark)}${unit}`,
    loss: formatFixed(lossDb, 2, mark),
    heavy: lossDb < WARN_DB,
  };
}

/** What stands on one side of a joint. */
export function placeName({ source, ways }: Pick<Sheet, 'source' | 'ways'>, id: string): string {
  if (id === 'source') return source.name;
  if (id === 'load') return ways[0].to.name;
  return `stage ${ways[0].stages.findIndex((s) => s.id === id) + 1}`;
}
