import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { PlannedTask, Task } from '@/core/plan/task';
import type { PartsLine } from '@/core/sheet/parts-list';
import { dayWords } from '@/ui/controls/date-words';

/** Parts as a shop would be asked for them: “resistor 4.7 kΩ”, “op-amp, low noise”. */
export function partLineWords(
  { kind, value, device, build, tolerance }: PartsLine,
  mark: DecimalMark,
): string {
  const part = partKindOf(kind);
  const main = mainQuantity(part);
  const what =
    device ??
    (main && value !== undefined
      ? formatQuantity(value, main.quantity, { digits: 4, unit: true, mark })
      : '');
  const within =
    tolerance === undefined
      ? ''
      : ` ±${formatQuantity(100 * tolerance, 'ratio', { digits: 2, mark })} %`;
  return `${part.noun} ${what}${within}${build === undefined ? '' : `, ${build}`}`.trim();
}

export const hoursWords = (hours: number, mark: DecimalMark): string =>
  `${formatFixed(hours, hours % 1 === 0 ? 0 : hours % 0.5 === 0 ? 1 : 2, mark)} h`;

/** What a task waits for, in words: the names of tasks, and what the world keeps back. */
export function waitWords({ waits }: Task, tasks: readonly PlannedTask[]): string {
  return waits
    .flatMap((w) => {
      if (w.is === 'world')
        return [w.until === null ? w.what : `${w.what}, by ${dayWords(w.until)}`];
      const task = tasks.find((t) => t.id === w.id);
      return task ? [`${task.title.charAt(0).toLowerCase()}${task.title.slice(1)}`] : [];
    })
    .join('; ');
}
