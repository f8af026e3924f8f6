import type { Cell } from '@/core/cells/cell';
import { mainHz } from '@/core/design/ask';
import { defaultTarget } from '@/core/sheet/default-target';
import { freshStageId, makeStage } from '@/core/sheet/make';
import { outputsOf } from '@/core/sheet/stage';
import { ReedError } from '@/core/errors';
import { cellStage } from '@/core/sheet/voice';
import { leftBy, withCopyMoved } from '@/core/sheet/controls';
import { cutOffControlOf } from '@/core/sheet/cut-off-control';
import { newId } from '@/store/ids';
import type { Topology } from '@/core/topologies/topology';
import { edit } from '@/store/sheet-session';
import { WAY, withStage, withStageAfter, withWay } from './within';

export function addStage(topology: Topology, after: string | null): string {
  let id = '';
  edit((c) => {
    id = freshStageId(c.ways[WAY]);
    const target = defaultTarget(topology, mainHz(c.ask));
    return withStageAfter(c, after, makeStage(id, topology, target, c.parts, 'hand'));
  });
  return id;
}

/** A voltage-controlled cell of its usual range, with its controls. */
export function addCell(cell: Cell, after: string | null): string {
  let id = '';
  edit((c) => {
    id = freshStageId(c.ways[WAY]);
    const { stage, controls } = cellStage(id, cell, cell.usual);
    return {
      ...withStageAfter(c, after, stage),
      controls: [...c.controls, ...controls.map((k) => ({ ...k, id: newId('c') }))],
    };
  });
  return id;
}

/** A volt an octave into all transconductors of a stage. Its values then no longer follow the ask. */
export function giveControl(id: string): void {
  edit((c) => {
    const stage = c.ways[WAY].stages.find((s) => s.id === id);
    const control = stage && cutOffControlOf(c, stage, newId('c'));
    if (!control)
      throw new ReedError('range', 'No transconductance is left here that a control could move.');
    return {
      ...withStage(c, id, (s) => ({ ...s, origin: 'hand' as const })),
      controls: [...c.controls, control],
    };
  });
}

export function duplicateStage(id: string): void {
  edit((c) => {
    const way = c.ways[WAY];
    const own = way.stages.find((s) => s.id === id);
    if (!own) return {};
    const copy = freshStageId(way);
    return {
      ...withStageAfter(c, id, { ...own, id: copy, origin: 'hand' }),
      controls: withCopyMoved(c.controls, id, copy),
    };
  });
}

export function removeStage(id: string): void {
  edit((c) => ({
    ...withWay(c, (way) => ({ ...way, stages: way.stages.filter((s) => s.id !== id) })),
    controls: leftBy(c.controls, id),
  }));
}

export function toggleBypass(id: string): void {
  edit((c) => withStage(c, id, (s) => ({ ...s, bypassed: !s.bypassed })));
}

export function moveStage(id: string, to: number): void {
  edit((c) =>
    withWay(c, (way) => {
      const stage = way.stages.find((s) => s.id === id);
      if (!stage || to < 0 || to >= way.stages.length) return way;
      const rest = way.stages.filter((s) => s.id !== id);
      return { ...way, stages: [...rest.slice(0, to), stage, ...rest.slice(to)] };
    }),
  );
}

/** Pass another output of a stage on. */
export function setHeard(stageId: string, port: string): void {
  edit((c) =>
    withStage(c, stageId, (s) => ({
      ...s,
      heard: outputsOf(s)[0]?.name === port ? undefined : port,
    })),
  );
}
