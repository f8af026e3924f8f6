import { useMemo } from 'react';
import type { PartLabel } from '@/core/drawing/labels';
import { printPart } from '@/core/parts/quantities';
import { composeDrawing, composedId } from '@/core/sheet/path-drawing';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { Schematic } from '@/ui/schematic/schematic';

const nothing = () => undefined;
const noEditor = () => null;

/** The circuit as it should be, to be read. */
export function BoardSchematic({ sheet }: { sheet: Sheet }) {
  const { mark, resistors } = usePreferences();
  const { stages } = sheet.ways[0];
  const drawing = useMemo(() => composeDrawing(stages), [stages]);
  const labels = useMemo(() => {
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
  }, [stages, mark]);
  return (
    <Schematic
      title="Schematic of the board"
      drawing={drawing}
      labels={labels}
      resistors={resistors}
      selected={null}
      editing={null}
      editor={noEditor}
      onSelect={nothing}
      onEdit={nothing}
      onPoint={nothing}
    />
  );
}
