import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Control, Sheet } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { partKindOf } from '@/core/parts';

/** What a control gives at a place of its travel: volts, amperes, or how far its shaft is turned, 0 to 1. */
export const givenAt = ({ is, span }: Pick<Control, 'is' | 'span'>, at: number): number =>
  span && is !== 'turn' ? span.from + at * (span.to - span.from) : at;

/** “3.49 V”, “12 µA”, “40 %”. */
export function printGiven(
  { is, span }: Pick<Control, 'is' | 'span'>,
  given: number,
  mark: DecimalMark,
  digits = 3,
): string {
  if (!span || is === 'turn') return `${formatFixed(given * 100, 0, mark)} %`;
  return formatQuantity(given, is === 'volts' ? 'volts' : 'amps', { digits, unit: true, mark });
}

/** Whether two states of a sheet are alike in some of it and in their controls, wherever one of those stands. */
export const alikeWherever =
  (id: string, parts: readonly (keyof Sheet)[]) =>
  (a: Sheet, b: Sheet): boolean =>
    parts.every((part) => a[part] === b[part]) && unturned(a, id) === unturned(b, id);

const unturned = ({ controls }: Sheet, id: string): string =>
  JSON.stringify(controls.map((c) => (c.id === id ? { ...c, at: 0 } : c)));

/** Where a control stands. */
export const standsAt = (control: Control, mark: DecimalMark): string =>
  printGiven(control, givenAt(control, control.at), mark);

/** What the first thing that a control moves is called, and what it is measured in. */
export function movedQuantity(
  { ways }: Pick<Sheet, 'ways'>,
  { moves: [move] }: Control,
): { name: string; kind: QuantityKind } {
  const stage = ways.flatMap((w) => w.stages).find((s) => s.id === move.stage);
  const drawn = stage && drawnParts(stage).find((p) => p.id === move.part);
  const quantity = drawn && partKindOf(drawn.kind).quantities.find((q) => q.name === move.quantity);
  return { name: move.part, kind: quantity?.quantity ?? 'ratio' };
}
