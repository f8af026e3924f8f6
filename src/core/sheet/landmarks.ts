import type { Landmark } from '@/core/response/landmarks';
import { topologyOf } from '@/core/topologies';
import { landmarksOf } from '@/core/topologies/figures';
import { exactValues } from './make';
import type { PathVersion } from './path-circuit';
import type { Way } from './schema';

/** Where the curve of a path bends most sharply, as far as the figures of its stages tell. */
export function pathLandmarks({ stages }: Way, version: PathVersion): Landmark[] {
  return stages
    .filter((s) => !s.bypassed)
    .flatMap((stage) => {
      const values = version === 'ideal' ? exactValues(stage) : stage.values;
      const topology = topologyOf(stage.topology);
      return landmarksOf(topology.kind, topology.figures(values));
    })
    .filter(({ hz, q }) => Number.isFinite(hz) && Number.isFinite(q));
}
