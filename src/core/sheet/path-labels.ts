import type { PartLabel } from '@/core/drawing/labels';
import { printPart } from '@/core/parts/quantities';
import type { DecimalMark } from '@/core/quantity/parse';
import { partNames } from './path-circuit';
import { composedId } from './path-drawing';
import type { Stage } from './schema';
import { quantityOfPart, valuesOf } from './stage';

/** Names and values that stand beside the parts of a composed drawing, by their ids there. */
export function pathLabels(
  stages: readonly Stage[],
  mark: DecimalMark = 'point',
): Record<string, PartLabel> {
  const names = partNames(stages);
  const all: Record<string, PartLabel> = {};
  for (const stage of stages)
    for (const [id, name] of names.get(stage.id) ?? []) {
      const quantity = quantityOfPart(stage, id);
      const value = valuesOf(stage)[id] as number | undefined;
      all[composedId(stage.id, id)] = {
        name,
        ...(quantity && value !== undefined ? { value: printPart(quantity, value, mark) } : {}),
      };
    }
  return all;
}
