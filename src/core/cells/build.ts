import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { along } from '@/core/numeric/along';
import { instantiate, netsOfDrawing } from '@/core/topologies/instantiate';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import type { Cell, CellPlan, CellValues } from './cell';

/** Numbers of a plan with its controls at places, by part and quantity. */
export function valuesOfPlan(cell: Cell, plan: CellPlan, at: readonly number[]): CellValues {
  const kinds = new Map(netsOfDrawing(cell.drawing).parts.map((p) => [p.id, partKindOf(p.kind)]));
  return (part, quantity) => {
    const kind = kinds.get(part)!;
    const main = mainQuantity(kind)?.name;
    const asked = quantity ?? main;
    for (const [k, { moves }] of plan.controls.entries())
      for (const move of moves)
        if (move.part === part && move.quantity === asked)
          return along(move.from, move.to, at[k], move.law === 'by ratio');
    const { value, more } = plan.parts[part] ?? {};
    const found = asked === main ? value : more?.[asked ?? ''];
    const usual = kind.quantities.find((q) => q.name === asked)?.usual;
    return found ?? usual ?? NaN;
  };
}

/** A planned cell by itself: one volt of small signal on net `in`, its output on net `out`; its op-amps ideal, or as given. */
export function circuitOfPlan(
  cell: Cell,
  plan: CellPlan,
  at: readonly number[],
  opAmp: unknown = 'ideal',
): Circuit {
  const values = valuesOfPlan(cell, plan, at);
  const parts: Part[] = instantiate(cell.drawing, {
    dataOf: ({ id, kind }) => {
      const known = partKindOf(kind);
      const more = Object.fromEntries(
        known.quantities.slice(1).map(({ name }) => [name, values(id, name)]),
      );
      return {
        ...(mainQuantity(known) ? { value: values(id) } : {}),
        more,
        model: plan.parts[id]?.model?.model ?? (kind === 'op-amp' ? opAmp : undefined),
      };
    },
    partName: (id) => id,
    netName: (net) => net,
  });
  return makeCircuit([UNIT_SOURCE, ...parts]);
}
