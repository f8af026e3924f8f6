import { partKindOf } from '@/core/parts';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import { exactValues, impedancePower } from '../exact';
import type { PartChoices, Stage } from '../schema';
import { drawnParts, valuesOf, withValues } from '../stage';
import { nearestReal } from '../real-values';
import { placeOf, stageBehind, withChanged, type Remedy } from './remedy';

/** How often higher the impedance is made, the least first. */
const TIMES = [2, 3, 5, 10, 20, 50];

/** Parts beyond these are no longer those of an audio circuit: their noise and strays take over. */
const MOST_OHMS = 1.5e6;
const LEAST_FARADS = 47e-12;

/** The stage behind the joint of higher impedance throughout: it does the same and draws less. */
export const scale: Remedy = {
  id: 'scale',
  treatments(complaint) {
    const stage = stageBehind(complaint);
    if (!stage) return [];
    return TIMES.flatMap((times) => {
      const scaled = scaledStage(stage, times, complaint.design.parts);
      const words = `Make ${placeOf(complaint, stage.id)} ${times} times higher in impedance`;
      return scaled ? [{ stages: withChanged(complaint, scaled), words }] : [];
    });
  },
};

/**
 * A stage whose impedances are all so many times higher, of values that can be bought: its response
 * stays. What a person chose goes along, so that the parts still fit each other.
 *
 * @returns nothing where a part would leave what parts there are
 */
export function scaledStage(stage: Stage, times: number, parts: PartChoices): Stage | undefined {
  const next: Stage = { ...stage, impedance: (stage.impedance ?? 1) * times };
  const exact = exactValues(next) ?? {};
  const values: Record<string, number> = {};
  const before = valuesOf(stage);
  for (const { id, kind: name } of drawnParts(stage)) {
    const kind = partKindOf(name);
    const main = mainQuantity(kind);
    const power = impedancePower(kind);
    if (!main || power === 0 || !(id in before)) continue;
    const designed = stage.parts[id].chosen === 'fit' && id in exact;
    const value = nearestReal(kind, designed ? exact[id] : before[id] * times ** power, parts);
    if (quantityProblem(main, value)) return undefined;
    if (main.quantity === 'ohms' ? value > MOST_OHMS : isTooSmall(main.quantity, value))
      return undefined;
    values[id] = value;
  }
  if (Object.keys(values).length === 0) return undefined;
  const scaled = withValues(next, values);
  // Who chose a value is not forgotten.
  const chosen = Object.entries(scaled.parts).map(([id, part]) => [
    id,
    { ...part, chosen: stage.parts[id].chosen },
  ]);
  return { ...scaled, parts: Object.fromEntries(chosen) as Stage['parts'] };
}

const isTooSmall = (quantity: string, value: number) =>
  quantity === 'farads' && value < LEAST_FARADS;
