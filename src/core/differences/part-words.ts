import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import type { StagePart } from '@/core/sheet/schema';

/** A part as it stands in a list of changes: “22n”, “2 × 10n”, “12k + 1k in series”, “quiet bipolar”. */
export function partWords(kind: string, part: StagePart | undefined): string {
  const { value, made, model } = part ?? {};
  const quantity = mainQuantity(partKindOf(kind));
  if (value === undefined || !quantity) return model?.name ?? '';
  const print = (x: number) => printPart(quantity, x);
  if (!made) return print(value);
  const [a, b] = made.of.map(print);
  if (made.how === 'trimmer') return `${a} and a trimmer of ${b}, in all ${print(value)}`;
  if (a === b) return made.how === 'parallel' ? `2 × ${a}` : `2 × ${a} in series`;
  return `${a} ${made.how === 'parallel' ? '∥' : '+'} ${b}`;
}
