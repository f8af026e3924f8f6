import type { Measure } from '@/core/response/readings';
import type { DecimalMark } from '@/core/quantity/parse';
import { formatFixed } from '@/core/quantity/format';
import { printMeasured } from '@/core/sheet/words';

/** A span of values; their unit is said once where it is the same. */
export function printSpan(
  measure: Measure,
  low: number,
  high: number,
  mark: DecimalMark = 'point',
): string {
  const [a, b] = [low, high].map((value) => printMeasured(measure, value, mark));
  const unit = /[\s\u00a0°].*$/;
  const same = unit.exec(a)?.[0] === unit.exec(b)?.[0];
  const first = same ? a.replace(unit, '') : a;
  // A dash beside a minus is hard to read.
  return low < 0 || high < 0 ? `${first} to ${b}` : `${first} – ${b}`;
}

/** A part of a whole, in per cent: never all or none unless it is. */
export function percent(part: number, mark: DecimalMark = 'point'): string {
  if (part <= 0 || part >= 1) return `${Math.round(part * 100)}\u00a0%`;
  if (part > 0.995) return `${formatFixed(Math.min(99.9, part * 100), 1, mark)}\u00a0%`;
  return part < 0.005
    ? `${formatFixed(Math.max(0.1, part * 100), 1, mark)}\u00a0%`
    : `${Math.round(part * 100)}\u00a0%`;
}
