import { hasShape, liftsByGain, type Ask } from '@/core/design/ask';
import { shapedTopologies, wholeTopologies } from '@/core/design/choose';
import { leastOrder } from '@/core/design/limits';
import { sectionsOf } from '@/core/design/sections';
import { ReedError } from '@/core/errors';
import type { Shape } from '@/core/response/prototypes';
import { topologyOf } from '@/core/topologies';

/** One way of meeting an ask: the ask with shape, order and topology filled in. */
export interface Candidate {
  id: string;
  shape: Shape | null;
  order: number;
  topology: string;
  ask: Ask;
}

export interface CandidateOptions {
  shapes?: readonly Shape[];
  orders?: readonly number[];
  topologies?: readonly string[];
  /** At most so many; those nearest the ask come first. Default 60. */
  most?: number;
}

/** Shapes tried by default, the usual ones first; the asked one leads. */
const USUAL: readonly Shape[] = [
  'butterworth',
  'chebyshev',
  'bessel',
  'elliptic',
  'inverse-chebyshev',
  'linkwitz-riley',
  'optimum-l',
  'critically-damped',
];

/** Candidate designs for an ask: shape by order by topology. */
export function candidatesOf(ask: Ask, options: CandidateOptions = {}): Candidate[] {
  const most = options.most ?? 60;
  if (!hasShape(ask.kind) || ask.kind === 'all-pass') {
    return topologiesOf(ask)
      .filter((t) => !options.topologies || options.topologies.includes(t))
      .slice(0, most)
      .map((topology) => candidate({ ...ask, topology }, topology, null));
  }
  const shapes = options.shapes ?? [ask.shape, ...USUAL.filter((s) => s !== ask.shape)];
  const seen = shapes.flatMap((shape) => {
    const orders = options.orders ?? ordersOf(ask, shape, shape === ask.shape);
    return orders.flatMap((order) => {
      const shaped = withShape(ask, shape, order);
      return shaped
        ? topologiesOf(shaped).map((topology) =>
            candidate({ ...shaped, topology }, topology, shape),
          )
        : [];
    });
  });
  const wanted = seen.filter(
    (c) => !options.topologies || options.topologies.some((t) => c.topology.startsWith(t)),
  );
  return spreadOut(wanted, most);
}

/** The asked order (or the least that does), and for the asked shape the slopes beside it. */
function ordersOf(ask: Ask, shape: Shape, leading: boolean): number[] {
  if (ask.limits) {
    try {
      return [leastOrder({ ...ask, shape, order: undefined }).order];
    } catch (error) {
      if (error instanceof ReedError) return [];
      throw error;
    }
  }
  const order = ask.order!;
  if (!leading) return [order];
  return [order, order + 1, order + 2, order - 1, order - 2].filter((n) => n >= 1 && n <= 10);
}

function withShape(ask: Ask, shape: Shape, order: number): Ask | undefined {
  if (shape === 'linkwitz-riley' && (order % 2 === 1 || order > 8)) return undefined;
  const edge = ask.edge === 'ripple' ? undefined : ask.edge;
  const shaped = { ...ask, shape, order, ...(shape === ask.shape ? {} : { edge }) };
  if (shape !== ask.shape && edge === undefined) shaped.edge = 'half-power';
  return shaped;
}

/** Topologies for an ask, the same one everywhere it can be. */
function topologiesOf(ask: Ask): string[] {
  const all = sectionsOf(ask);
  const zeros = all.sections.some(
    (s) => s.figures.zeroHz !== undefined && Math.abs(s.figures.zeroHz / s.figures.f0Hz - 1) > 1e-9,
  );
  const main = [...all.sections].sort((a, b) => (b.figures.q ?? 0) - (a.figures.q ?? 0))[0];
  const stages = shapedTopologies(ask, main).filter((t) => !zeros || t.limits.zero !== undefined);
  const whole = wholeTopologies(ask.kind, all.order).filter(
    (t) => !t.ownShape && (t.limits.poles === 'with-zeros') === zeros,
  );
  return [...stages, ...whole].map((t) => t.id);
}

const candidate = (given: Ask, topology: string, shape: Shape | null): Candidate => {
  // A circuit whose gain comes with its shape is weighed with the gain it has.
  const { gain, limits } = topologyOf(topology);
  const own = gain === 'given' || (gain === 'settable' && limits.gain[0] > 1);
  const ask = own && !liftsByGain(given.kind) ? { ...given, gainDb: undefined } : given;
  return {
    id: [shape ?? ask.kind, ask.order ?? '', topology].filter((x) => x !== '').join(' '),
    shape,
    order: ask.order ?? 1,
    topology,
    ask,
  };
};

/** The asked shape and order in every form; of the others, by turns from each, what there is room for. */
function spreadOut(list: readonly Candidate[], most: number): Candidate[] {
  if (list.length <= most) return [...list];
  const groups = new Map<string, Candidate[]>();
  for (const c of list) {
    const key = `${c.shape} ${c.order}`;
    groups.set(key, [...(groups.get(key) ?? []), c]);
  }
  const chosen = new Set<Candidate>([...groups.values()][0].slice(0, most));
  for (let round = 0; chosen.size < most; round++)
    for (const group of groups.values())
      if (group[round] && chosen.size < most) chosen.add(group[round]);
  return list.filter((c) => chosen.has(c));
}
