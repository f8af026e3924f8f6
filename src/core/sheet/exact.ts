import type { PartKind } from '@/core/parts/part-kind';
import { mainQuantity } from '@/core/parts/quantities';
import { valuedParts } from '@/core/topologies/instantiate';
import type { StageChoice, Values } from '@/core/topologies/topology';
import type { Stage } from './schema';
import { designedAs } from './stage';

/** What a stage's values start from, without what is not said. */
export const startOf = ({ farads, ohms }: StageChoice): StageChoice => ({
  ...(farads === undefined ? {} : { farads }),
  ...(ohms === undefined ? {} : { ohms }),
});

/**
 * The values a stage would have if any value could be bought; nothing for one that was never
 * designed.
 *
 * @throws ReedError `design` when its figures cannot be met
 */
export function exactValues(
  stage: Pick<Stage, 'topology' | 'target' | 'farads' | 'ohms' | 'impedance'>,
): Values | undefined {
  const topology = designedAs(stage);
  if (!topology || !stage.target) return undefined;
  const values = topology.design(stage.target, startOf(stage));
  const { impedance = 1 } = stage;
  if (impedance === 1) return values;
  const kinds = new Map(valuedParts(topology).map(({ id, kind }) => [id, kind]));
  return Object.fromEntries(
    Object.entries(values).map(([id, value]) => {
      const kind = kinds.get(id);
      return [id, kind ? value * impedance ** impedancePower(kind) : value];
    }),
  );
}

/** The power of the impedance that a part's number goes by: a capacitor is smaller where it is higher. */
export const impedancePower = (kind: PartKind): number =>
  POWERS[mainQuantity(kind)?.quantity ?? ''] ?? 0;

const POWERS: Readonly<Partial<Record<string, number>>> = {
  ohms: 1,
  henries: 1,
  farads: -1,
  siemens: -1,
};
