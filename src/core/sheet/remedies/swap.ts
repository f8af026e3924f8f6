import { placeOf, type Remedy } from './remedy';

/** The stages on both sides of the joint, the other way round. */
export const swap: Remedy = {
  id: 'swap',
  treatments(complaint) {
    const { design, joint } = complaint;
    const { stages } = design.ways[0];
    const before = stages.find((s) => s.id === joint.before);
    const after = stages.find((s) => s.id === joint.after);
    if (!before || !after) return [];
    return [
      {
        stages: stages.map((s) => (s === before ? after : s === after ? before : s)),
        words: `Swap ${placeOf(complaint, before.id)} and ${placeOf(complaint, after.id)}`,
      },
    ];
  },
};
