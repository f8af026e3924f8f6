import { buffer as topology } from '@/core/topologies/single/buffer';
import { defaultTarget } from '../default-target';
import { freshStageId, makeStage } from '../make';
import type { Remedy } from './remedy';

/** A follower at the joint: it loads next to nothing, and drives whatever follows. */
export const buffer: Remedy = {
  id: 'buffer',
  treatments({ design, joint }) {
    const [way] = design.ways;
    const at =
      joint.after === 'load'
        ? way.stages.length
        : way.stages.findIndex((s) => s.id === joint.after);
    if (at < 0) return [];
    const target = defaultTarget(topology, joint.atHz);
    const stage = makeStage(freshStageId(way), topology, target, design.parts, 'hand');
    const stages = [...way.stages.slice(0, at), stage, ...way.stages.slice(at)];
    return [{ stages, words: 'Put a buffer here' }];
  },
};
