import { partKindOf } from '@/core/parts';
import { quarterTurns } from '@/core/parts/geometry';
import { UNIT, type ResistorLook, type Stroke } from '@/core/parts/part-kind';
import type { PartOnPaper } from './drawing';

/** What every picture of a schematic draws, about a symbol's first pin at `UNIT` a grid unit. */
export const GROUND_STROKE = 'M-14 0H14M-9 6H9M-4 12H4';
export const PORT_DOT = 3.5;

/** The lines of a part, those that lead to its optional pins included; not turned yet. */
export function strokesOf(part: PartOnPaper, look: ResistorLook): readonly Stroke[] {
  const its = partKindOf(part.kind).symbol;
  const at = (point: readonly number[]) => point.map((v) => v * UNIT).join(' ');
  const leads = its.pins.flatMap((pin): Stroke[] =>
    pin.optional && part.with?.includes(pin.name)
      ? [{ d: `M${at(pin.at)}L${at(pin.optional)}` }]
      : [],
  );
  return [...leads, ...its.strokes(look)];
}

/** How its lines are turned and flipped, as an SVG transform. */
export function turnOf({ kind, toward = 'right', mirrored }: PartOnPaper): string {
  const { axis } = partKindOf(kind).symbol;
  const flip = mirrored ? ` translate(0 ${2 * axis * UNIT}) scale(1 -1)` : '';
  return `rotate(${90 * quarterTurns(toward)})${flip}`;
}
