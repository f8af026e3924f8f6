import type { Point } from '@/core/drawing/drawing';
import { movePart, partIn, standOf } from '@/core/drawing/grow/change';
import { splitComposedId } from '@/core/sheet/path-drawing';
import { attempt } from '../shell/tell';
import { redraw } from './actions/wiring';

/** A part of a stage's own drawing some steps along the grid, or a quarter turn round. */
export function moveOnGrid(stageId: string, part: string, change: { by: Point } | 'turned'): void {
  attempt(() => redraw(stageId, (d) => movePart(d, part, standOf(partIn(d, part), change))));
}

/** The same of a part as the schematic calls it. */
export function moveComposed(id: string, by: Point): void {
  const { stageId, part } = splitComposedId(id);
  moveOnGrid(stageId, part, { by });
}
