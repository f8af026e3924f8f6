import { lowPassPrototype } from '@/core/response/prototypes';
import { centreOfPoles } from '@/core/topologies/figures';
import type { Range, StageAsk, Topology } from '@/core/topologies/topology';

const inside = (x: number, [least, greatest]: Range) => Math.min(greatest, Math.max(least, x));

/** What a stage put in by hand is first designed for: something its topology certainly holds. */
export function defaultTarget(topology: Topology, hz: number): StageAsk {
  const { q, boost, depth, poles } = topology.limits;
  if (poles) return manyPoles(topology, poles === 'with-zeros', hz);
  return {
    f0Hz: hz,
    // Forms whose gain rises with Q begin a little above it.
    ...(q
      ? {
          q: inside(
            topology.kind === 'low-pass' || topology.kind === 'high-pass' ? Math.SQRT1_2 : 2,
            q,
          ),
        }
      : {}),
    ...(boost ? { boost: inside(boost[1] > 1 ? 2 : 0.5, boost) } : {}),
    ...(depth ? { depth: inside(0.05, depth) } : {}),
  };
}

function manyPoles({ order, kind }: Topology, zeros: boolean, hz: number): StageAsk {
  const { sections, zeros: at } = lowPassPrototype({
    shape: zeros ? 'elliptic' : 'butterworth',
    order,
    rippleDb: 0.5,
    // A steep shape that falls only 40 dB has no ladder with positive parts.
    stopbandDb: order > 7 ? 60 : 40,
  });
  const place = (w: number) => (kind === 'high-pass' ? hz / w : hz * w);
  const placed = sections.map(({ w0, q }) => ({
    f0Hz: place(w0),
    ...(q === undefined ? {} : { q }),
  }));
  return {
    f0Hz: centreOfPoles(placed),
    poles: placed,
    ...(at.length > 0 ? { zerosHz: at.map(place) } : {}),
  };
}
