import { mirrorOf } from './mirror';
import type { Topology } from './topology';

/**
 * The sibling of a topology among others: its mirror twin if it is there, else one of its family.
 * Circuits that are joined alike and designed by other rules have the same twins; each goes with
 * the one of its own family.
 */
export function siblingAmong(topology: Topology, able: readonly Topology[]): Topology | undefined {
  const related = (t: Topology) => t.family !== undefined && t.family === topology.family;
  const twins = able.filter((t) => mirrorOf(topology, t));
  return twins.find(related) ?? twins[0] ?? able.find(related);
}
