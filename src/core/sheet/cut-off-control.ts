import { mainQuantity } from '@/core/parts/quantities';
import { partKindOf } from '@/core/parts';
import { USUAL_CONVERTER } from '@/core/synth/converter';
import type { Control, SheetDesign, Stage } from './schema';
import { drawnParts } from './stage';

/** Octaves to either side of where it was designed. */
const EITHER_WAY = 3;
/** Kinds whose main number a bias current sets in proportion. */
const CONTROLLED: ReadonlySet<string> = new Set(['transconductor', 'ota']);

/**
 * A control for a filter whose cut-off goes with transconductances: a volt an octave in all of them
 * together, from three octaves below to three above what they are.
 *
 * @returns undefined where it has none, or where something moves one of them already
 */
export function cutOffControlOf(
  { controls }: Pick<SheetDesign, 'controls'>,
  stage: Stage,
  id: string,
): Control | undefined {
  const moved = drawnParts(stage).filter((p) => CONTROLLED.has(p.kind));
  const taken = controls.some((c) => c.moves.some((m) => m.stage === stage.id));
  if (moved.length === 0 || taken) return undefined;
  const times = 2 ** EITHER_WAY;
  return {
    id,
    name: 'Cut-off',
    is: 'volts',
    for: 'cut-off',
    span: { from: 0, to: 2 * EITHER_WAY },
    at: 0.5,
    converter: USUAL_CONVERTER,
    moves: moved.flatMap(({ id: part, kind }) => {
      const quantity = mainQuantity(partKindOf(kind))!;
      const value = stage.parts[part]?.value ?? quantity.usual;
      return value > 0
        ? [
            {
              stage: stage.id,
              part,
              quantity: quantity.name,
              from: value / times,
              to: value * times,
              law: 'by ratio' as const,
            },
          ]
        : [];
    }),
  };
}
