import { ReedError } from '@/core/errors';
import type { PartKind } from '@/core/parts/part-kind';
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
      return [id, nearestReal(kind, exact[id], parts)];
    }),
  );
}

/** The nearest value of its kind that can be bought, by the sheet's series. */
export function nearestReal({ series }: PartKind, value: number, parts: PartChoices): number {
  const from = series === null ? 'exact' : parts[series];
  return from === 'exact' ? value : nearestPreferred(value, from);
}
