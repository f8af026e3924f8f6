import { mainHz } from '@/core/design/ask';
import { defaultTarget } from '@/core/sheet/default-target';
import { freshStageId, makeStage } from '@/core/sheet/make';
import { outputsOf } from '@/core/sheet/stage';
import type { Stage } from '@/core/sheet/schema';
import type { Topology } from '@/core/topologies/topology';
import { edit } from '@/store/sheet-session';
import { WAY, withWay, withStage } from './within';

export function addStage(topology: Topology, after: string | null): string {
  let id = '';
  edit((c) => {
    const way = c.ways[WAY];
    id = freshStageId(way);
    const target = defaultTarget(topology, mainHz(c.ask));
    const stage = makeStage(id, topology, target, c.parts, 'hand');
    const at = after === null ? 0 : way.stages.findIndex((s) => s.id === after) + 1;
    return withWay(c, (w) => ({
      ...w,
      stages: [...w.stages.slice(0, at), stage, ...w.stages.slice(at)],
    }));
  });
  return id;
}

export function duplicateStage(id: string): void {
  edit((c) => {
    const way = c.ways[WAY];
    const at = way.stages.findIndex((s) => s.id === id);
    const copy: Stage = { ...way.stages[at], id: freshStageId(way), origin: 'hand' };
    return withWay(c, (w) => ({
      ...w,
      stages: [...w.stages.slice(0, at + 1), copy, ...w.stages.slice(at + 1)],
    }));
  });
}

export function removeStage(id: string): void {
  edit((c) => withWay(c, (way) => ({ ...way, stages: way.stages.filter((s) => s.id !== id) })));
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
