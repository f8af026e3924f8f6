import type { Landmark } from '@/core/response/landmarks';
import { landmarksOf } from '@/core/topologies/figures';
import { exactValues } from './exact';
import type { PathVersion } from './path-circuit';
import type { Way } from './schema';
import { designedAs, valuesOf } from './stage';

/** Where the curve of a path bends most sharply, as far as the figures of its stages tell. */
export function pathLandmarks({ stages }: Way, version: PathVersion): Landmark[] {
  return stages
    .filter((s) => !s.bypassed)
    .flatMap((stage) => {
      const topology = designedAs(stage);
      // The figures of a design that was changed since still tell about where its curve bends.
      const values = version === 'ideal' ? exactValues(stage) : valuesOf(stage);
      return topology && values ? landmarksOf(topology.kind, topology.figures(values)) : [];
    })
    .filter(({ hz, q }) => Number.isFinite(hz) && Number.isFinite(q));
}
