import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Joint } from '@/core/sheet/joints';
import type { Sheet } from '@/core/sheet/schema';

/** A stage is dragged down when its joint loses more than this. */
export const WARN_DB = -0.5;

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
