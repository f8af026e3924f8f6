import { useMemo } from 'react';
import { composeDrawing } from '@/core/sheet/path-drawing';
import { pathLabels } from '@/core/sheet/path-labels';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { Schematic } from '@/ui/schematic/schematic';

const nothing = () => undefined;
const noEditor = () => null;

/** The circuit as it should be, to be read. */
export function BoardSchematic({ sheet }: { sheet: Sheet }) {
  const { mark, resistors } = usePreferences();
  const { stages } = sheet.ways[0];
  const drawing = useMemo(() => composeDrawing(stages), [stages]);
  const labels = useMemo(() => pathLabels(stages, mark), [stages, mark]);
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
