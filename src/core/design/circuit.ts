import { numberedName } from '@/core/parts';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { makeCircuit, type Circuit, type PartOf } from '@/core/circuit/schema';
import { instantiate, netsOfTopology, withValues } from '@/core/topologies/instantiate';
import type { Design } from './design';

export interface DesignCircuit {
  circuit: Circuit;
  /** Every value by its part's name in the circuit. */
  values: Record<string, number>;
}

/**
 * A design as a circuit: a source of 1 V a.c. from `in` to ground, output on `out`. Parts are
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
    for (const { id, kind } of netsOfTopology(stage.topology).parts) {
      const name = numberedName(counts, kind);
      names.set(id, name);
      if (id in stage.values) values[name] = stage.values[id];
    }
    const out = i === stages.length - 1 ? 'out' : `s${i + 1}`;
    const from = i === 0 ? 'in' : `s${i}`;
    return instantiate(stage.topology.drawing, {
      dataOf: withValues(stage.values, opAmpModel),
      partName: (local) => names.get(local)!,
      netName: (local) => (local === 'in' ? from : local === 'out' ? out : `s${i + 1}.${local}`),
    });
  });
  return { circuit: makeCircuit([UNIT_SOURCE, ...parts], title), values };
}
