import { controlVariation, partVariation } from '@/core/sheet/variation';
import type { Sheet } from '@/core/sheet/schema';
import type { LayerTrace } from '@/core/sheet/solved-way';
import type { Job } from './job';

/** The built curve with one part multiplied by each factor, or a control at each place of its travel. */
export const variation: Job<
  { sheet: Sheet } & (
    { stageId: string; part: string; factors: number[] } | { control: string; places: number[] }
  ),
  never,
  LayerTrace[]
> = (input) =>
  'control' in input
    ? controlVariation(input.sheet, input.control, input.places)
    : partVariation(input.sheet, input.stageId, input.part, input.factors);
