import { makeCircuit, type Circuit, type PartOf } from '@/core/circuit/schema';
import { instantiate, netsOfTopology } from '@/core/topologies/instantiate';
import type { Design } from './design';

export interface DesignCircuit {
  circuit: Circuit;
  /** Every value by its part's name in the circuit. */
  values: Record<string, number>;
}

/**
 * A design as a circuit: source V1 of 1 V a.c. from `in` to ground, output on `out`. Parts are
 * numbered through from source to output, letter by letter.
 */
export function designCircuit(
  { stages }: Pick<Design, 'stages'>,
  opAmpModel: PartOf<'op-amp'>['model'],
  title = '',
): DesignCircuit {
  const counts = new Map<string, number>();
  const values: Record<string, number> = {};
  const parts = stages.flatMap((stage, i) => {
    const names = new Map<string, string>();
    for (const { id } of netsOfTopology(stage.topology).parts) {
      const n = (counts.get(id[0]) ?? 0) + 1;
      counts.set(id[0], n);
      names.set(id, `${id[0]}${n}`);
      if (id in stage.values) values[`${id[0]}${n}`] = stage.values[id];
    }
    const out = i === stages.length - 1 ? 'out' : `s${i + 1}`;
    const from = i === 0 ? 'in' : `s${i}`;
    return instantiate(stage.topology, {
      values: stage.values,
      opAmpModel,
      partName: (local) => names.get(local)!,
      netName: (local) => (local === 'in' ? from : local === 'out' ? out : `s${i + 1}.${local}`),
    });
  });
  const source = { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 } as const;
  return { circuit: makeCircuit([source, ...parts], title), values };
}
