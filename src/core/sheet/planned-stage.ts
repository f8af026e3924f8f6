import type { CellPart } from '@/core/cells/cell';
import type { Drawing } from '@/core/drawing/drawing';
import type { Stage, StagePart } from './schema';

const partOf = ({ value, more, model }: CellPart): StagePart => ({
  ...(value === undefined ? {} : { value }),
  chosen: 'hand',
  ...(more ? { more: { ...more } } : {}),
  ...(model ? { model } : {}),
});

/** What a stage that no topology made is planned from. */
export interface StagePlan {
  id: string;
  name: string;
  drawing: Drawing;
  parts: Readonly<Record<string, CellPart>>;
}

/** A stage whose drawing is its own from now on, with the parts that were planned. */
export const plannedStage = ({ id, name, drawing, parts }: StagePlan): Stage => ({
  id,
  name,
  drawing: structuredClone({ symbols: drawing.symbols, wires: drawing.wires }),
  origin: 'hand',
  bypassed: false,
  parts: Object.fromEntries(Object.entries(parts).map(([part, data]) => [part, partOf(data)])),
});
