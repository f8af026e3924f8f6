import type { Part, PartOf } from '@/core/circuit/schema';
import { readNets, type DrawnNets } from './nets';
import type { Topology, Values } from './topology';

const netsCache = new WeakMap<Topology, DrawnNets>();

/** The nets of a topology's drawing, read once. */
export function netsOfTopology(topology: Topology): DrawnNets {
  let nets = netsCache.get(topology);
  if (!nets) netsCache.set(topology, (nets = readNets(topology.drawing)));
  return nets;
}

export interface Placement {
  values: Values;
  opAmpModel: PartOf<'op-amp'>['model'];
  /** Name in the circuit for a part of the drawing. */
  partName: (local: string) => string;
  /** Name in the circuit for a net of the drawing (never asked for ground). */
  netName: (local: string) => string;
}

/** Turn a drawn topology with values into circuit parts. */
export function instantiate(
  topology: Topology,
  { values, opAmpModel, partName, netName }: Placement,
): Part[] {
  const net = (local: string) => (local === '0' ? '0' : netName(local));
  return netsOfTopology(topology).parts.map(({ id, kind, nets }): Part => {
    const name = partName(id);
    const [a, b] = [net(nets.a), net(nets.b)];
    switch (kind) {
      case 'resistor':
        return { id: name, kind, a, b, ohms: values[id] };
      case 'capacitor':
        return { id: name, kind, a, b, farads: values[id] };
      case 'inductor':
        return { id: name, kind, a, b, henries: values[id] };
      case 'op-amp':
        return {
          id: name,
          kind,
          inPlus: net(nets.inPlus),
          inMinus: net(nets.inMinus),
          out: net(nets.out),
          model: opAmpModel,
        };
      case 'transconductor':
        return {
          id: name,
          kind,
          from: '0',
          to: net(nets.out),
          inPlus: net(nets.inPlus),
          inMinus: net(nets.inMinus),
          siemens: values[id],
        };
    }
  });
}

export type ValuedKind = 'resistor' | 'capacitor' | 'inductor' | 'transconductor';

/** The parts of a topology that have a value, in drawing order. */
export function valuedParts(topology: Topology): { id: string; kind: ValuedKind }[] {
  return netsOfTopology(topology).parts.flatMap(({ id, kind }) =>
    kind === 'op-amp' ? [] : [{ id, kind }],
  );
}

/** The kind of a topology's part, by its id; undefined for one without a value, or none at all. */
export function kindOfPart(topology: Topology, id: string): ValuedKind | undefined {
  return valuedParts(topology).find((p) => p.id === id)?.kind;
}
