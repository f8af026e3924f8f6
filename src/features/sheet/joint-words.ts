import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Joint } from '@/core/sheet/joints';

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
