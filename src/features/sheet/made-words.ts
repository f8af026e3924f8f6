import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import { formatFixed } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { StagePart } from '@/core/sheet/schema';

/** “12k and 150k in parallel”, “8k2 and a trimmer of 2k2”. */
export function pieceWords(
  { how, of }: NonNullable<StagePart['made']>,
  print: (value: number) => string,
): string {
  const [a, b] = of.map(print);
  return how === 'trimmer' ? `${a} and a trimmer of ${b}` : `${a} and ${b} in ${how}`;
}

/** “one part”, “12k and 150k in parallel”, “8k2 and a trimmer of 2k2, set to 1k34 (61 %)”. */
export function madeWords(
  kind: string,
  { made, value = 0 }: Pick<StagePart, 'made' | 'value'>,
  mark: DecimalMark,
): string {
  if (!made) return 'one part';
  const quantity = mainQuantity(partKindOf(kind))!;
  const print = (x: number) => printPart(quantity, x, mark);
  const pieces = pieceWords(made, print);
  if (made.how !== 'trimmer') return pieces;
  const set = value - made.of[0];
  const turn = formatFixed((set / made.of[1]) * 100, 0, mark);
  return `${pieces}, set to ${print(set)} (${turn} %)`;
}
