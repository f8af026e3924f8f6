import type { Sheet } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import { keyOf, type SheetBoard } from './board-circuit';

/** A sheet as one of its boards is: what was measured on it in the place of what was chosen. */
export const asBuilt = (sheet: Sheet, { values }: Pick<SheetBoard, 'values'>): Sheet => ({
  ...sheet,
  ways: sheet.ways.map((way) => ({
    ...way,
    stages: way.stages.map((stage) =>
      Object.keys(stage.parts).reduce((changed, part) => {
        const value = values[keyOf({ way: way.id, stage: stage.id, part })] as number | undefined;
        return value === undefined ? changed : withValue(changed, part, value, 'known');
      }, stage),
    ),
  })),
});
