import type { System } from '@/core/circuit/compile';
import { ReedError } from '@/core/errors';

/**
 * The unknown of a net that is to be probed; -1 for ground.
 *
 * @throws ReedError `circuit` naming the nets there are
 */
export function netUnknown({ circuit, netIndex }: System, name: string): number {
  if (name === circuit.ground) return -1;
  const index = netIndex.get(name);
  if (index !== undefined) return index;
  throw new ReedError(
    'circuit',
    `The circuit has no net “${name}” to probe. Its nets are ${[...netIndex.keys()].join(', ')}.`,
    { net: name },
  );
}
