import { ReedError } from '@/core/errors';
import { mainQuantity, quantityProblem } from '@/core/parts/quantities';
import { nearestPreferred } from '@/core/quantity/series';
import { valuedParts } from '@/core/topologies/instantiate';
import type { Topology, Values } from '@/core/topologies/topology';
import type { PartChoices } from './schema';

/** The nearest values that can be bought, by the sheet's series. */
export function realValues(
  topology: Topology,
  exact: Values,
  parts: PartChoices,
): Record<string, number> {
  return Object.fromEntries(
    valuedParts(topology).map(({ id, kind }) => {
      const problem = quantityProblem(mainQuantity(kind)!, exact[id]);
      if (problem) throw new ReedError('design', `${topology.name}: ${id} ${problem}.`);
      const series = kind.series === null ? 'exact' : parts[kind.series];
      return [id, series === 'exact' ? exact[id] : nearestPreferred(exact[id], series)];
    }),
  );
}
