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
  stage: Pick<Stage, 'topology' | 'target' | 'farads' | 'ohms'>,
): Values | undefined {
  const topology = designedAs(stage);
  return topology && stage.target ? topology.design(stage.target, startOf(stage)) : undefined;
}
