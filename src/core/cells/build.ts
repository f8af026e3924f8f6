import type { Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { makeCircuit, type Circuit } from '@/core/circuit/schema';
import { instantiate, netsOfDrawing } from '@/core/topologies/instantiate';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import type { Cell, CellControl, CellPlan, CellValues } from './cell';

/** The quantity that a control sets where it stands. */
const moved = ({ from, to, law }: CellControl['moves'][number], at: number): number =>
  law === 'by ratio' && from * to > 0 ? from * (to / from) ** at : from + (to - from) * at;

/** Numbers of a plan with its controls at places, by part and quantity. */
export function valuesOfPlan(cell: Cell, plan: CellPlan, at: readonly number[]): CellValues {
  const mains = new Map(
    netsOfDrawing(cell.drawing).parts.map((p) => [p.id, mainQuantity(partKindOf(p.kind))?.name]),
  );
  return (part, quantity) => {
    const main = mains.get(part);
    const asked = quantity ?? main;
    for (const [k, { moves }] of plan.controls.entries())
      for (const move of moves)
        if (move.part === part && move.quantity === asked) return moved(move, at[k]);
    const { value, more } = plan.parts[part] ?? {};
    const found = asked === main ? value : more?.[asked ?? ''];
    const usual = partKindOf(
      netsOfDrawing(cell.drawing).parts.find((p) => p.id === part)!.kind,
    ).quantities.find((q) => q.name === asked)?.usual;
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
