import { along } from '@/core/numeric/along';
import type { PartData } from '@/core/topologies/instantiate';
import type { Control, SheetDesign, Stage, Way } from './schema';

type Move = Control['moves'][number];

/** The quantity that a control sets where it stands. */
export function movedTo({ from, to, law }: Move, at: number): number {
  return along(from, to, at, law === 'by ratio');
}

/** What the controls of a sheet set in one stage: quantities by part. */
export function movedParts(
  { controls, ways }: Pick<SheetDesign, 'controls' | 'ways'>,
  way: Way,
  { id }: Stage,
): Map<string, Record<string, number>> {
  const found = new Map<string, Record<string, number>>();
  for (const { at, moves } of controls)
    for (const move of moves) {
      if (move.stage !== id || (move.way ?? ways[0].id) !== way.id) continue;
      found.set(move.part, { ...found.get(move.part), [move.quantity]: movedTo(move, at) });
    }
  return found;
}

/** A part with the quantities that a control sets. */
export function movedData(
  data: PartData,
  moved: Record<string, number> | undefined,
  main: string | undefined,
): PartData {
  if (!moved) return data;
  const { [main ?? '']: value, ...more } = moved;
  return {
    ...data,
    ...(value === undefined ? {} : { value }),
    ...(Object.keys(more).length > 0 ? { more: { ...data.more, ...more } } : {}),
  };
}

/** Several tracks that one knob turns. */
export interface Shaft {
  control: string;
  tracks: number;
}

/** The shaft that a part of a sheet stands on with others, if it does. */
export function shaftsOf({
  controls,
  ways,
}: Pick<SheetDesign, 'controls' | 'ways'>): (
  way: Way,
  stage: Stage,
  part: string,
) => Shaft | undefined {
  const key = (way: string, stage: string, part: string) => JSON.stringify([way, stage, part]);
  const shafts = new Map<string, Shaft>();
  for (const { id: control, moves } of controls)
    for (const { way, stage, part } of moves.length > 1 ? moves : [])
      shafts.set(key(way ?? ways[0].id, stage, part), { control, tracks: moves.length });
  return (way, stage, part) => shafts.get(key(way.id, stage.id, part));
}
