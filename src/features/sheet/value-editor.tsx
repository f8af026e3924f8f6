import { splitComposedId } from '@/core/sheet/path-drawing';
import type { Stage } from '@/core/sheet/schema';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { QuantityInput } from '@/ui/controls/quantity-input';
import { setUi } from './ui-state';

interface Props {
  /** The part, by its id in a composed drawing. */
  id: string;
  /** Those that are drawn. */
  stages: readonly Stage[];
  name: string | undefined;
  /** What controls set, by part and quantity, where there are any: the field begins with that. */
  moved?: (stage: Stage) => ReadonlyMap<string, Readonly<Record<string, number>>>;
  onValue: (stageId: string, part: string, value: number) => void;
}

/** The field that stands in the place of a part's value. */
export function ValueEditor({ id, stages, name, moved, onValue }: Props) {
  const mark = usePreferences((p) => p.mark);
  const { stageId, part } = splitComposedId(id);
  const stage = stages.find((s) => s.id === stageId);
  const quantity = stage && quantityOfPart(stage, part);
  if (!stage || !quantity) return null;
  return (
    <QuantityInput
      label={`Value of ${name ?? part}`}
      value={moved?.(stage).get(part)?.[quantity.name] ?? valuesOf(stage)[part]}
      kind={quantity.quantity}
      mark={mark}
      onCommit={(value) => onValue(stageId, part, value!)}
      onDone={() => setUi({ editingPart: null })}
    />
  );
}
