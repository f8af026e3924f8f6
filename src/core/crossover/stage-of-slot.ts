import { nearestPreferred, type SeriesName } from '@/core/quantity/series';
import { checkSlot } from '@/core/sheet/gate';
import type { PartChoices, Stage, StagePart } from '@/core/sheet/schema';
import { slotKindOf, type Slot } from '@/core/slots';
import { armsDrawing, type ArmPart } from '@/core/slots/arms';

/** Which of a sheet's series a part of a slot is bought from. */
const SERIES = { resistor: 'resistors', capacitor: 'capacitors', coil: 'inductors' } as const;
/** Wire that coils are wound of where nothing else is said. */
export const USUAL_WIRE = 1e-3;

export interface SlotOptions {
  origin?: Stage['origin'];
  /** Wire of its coils, metres. */
  wireMetres?: number;
}

/**
 * A slot of a way as a stage: drawn by its kind, its values those that it is designed for, taken from
 * the sheet's series.
 *
 * @throws ReedError `range` for a field beyond its bounds, `design` for what no parts can do
 */
export function stageOfSlot(
  id: string,
  slot: Slot,
  parts: Pick<PartChoices, 'resistors' | 'capacitors' | 'inductors'>,
  { origin = 'hand', wireMetres = USUAL_WIRE }: SlotOptions = {},
): Stage {
  checkSlot(slot);
  const kind = slotKindOf(slot);
  const arms = kind.arms(slot);
  const values = kind.values(slot);
  const partOf = ([word, part]: ArmPart): [string, StagePart] => [
    part,
    {
      value: inSeries(values[part], parts[SERIES[word]]),
      chosen: 'fit',
      ...(word === 'coil' ? { wound: { wireMetres, core: 'air' as const } } : {}),
    },
  ];
  return {
    id,
    origin,
    bypassed: false,
    slot,
    drawing: armsDrawing(arms),
    parts: Object.fromEntries(arms.flatMap((arm) => arm.parts.map(partOf))),
  };
}

const inSeries = (value: number, series: SeriesName | 'exact'): number =>
  series === 'exact' ? value : nearestPreferred(value, series);

/** A slot that was asked for otherwise: designed anew, its coils of the wire they had. */
export function redesignedSlot(
  stage: Stage,
  slot: Slot,
  parts: Pick<PartChoices, 'resistors' | 'capacitors' | 'inductors'>,
): Stage {
  const wire = Object.values(stage.parts).find((p) => p.wound)?.wound?.wireMetres;
  return {
    ...stageOfSlot(stage.id, slot, parts, { origin: stage.origin, wireMetres: wire }),
    bypassed: stage.bypassed,
  };
}
