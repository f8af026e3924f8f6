import * as z from 'zod';
import { defineDevice } from '../device';
import { finite, partBase, partId } from '../part';

const schema = z.strictObject({
  ...partBase,
  kind: z.literal('coupling'),
  inductors: z.tuple([partId, partId]),
  k: finite.gt(-1, 'must lie between -1 and 1').lt(1, 'must lie between -1 and 1'),
});

/** Two coils sharing flux: each sees M di/dt of the other, M = k sqrt(L1 L2). */
export const coupling = defineDevice<z.infer<typeof schema>>({
  kind: 'coupling',
  schema,
  terminals: () => ({}),
  conducts: () => [],
  stampLast: true,
  passive: true,
  stamp(part, s) {
    if (part.k === 0) return;
    const [first, second] = part.inductors;
    const i1 = s.branchOf(first);
    const i2 = s.branchOf(second);
    const factors = [
      [s.parameter('k', part.k), 1],
      [s.parameterOf(first, 'henries'), 0.5],
      [s.parameterOf(second, 'henries'), 0.5],
    ] as const;
    s.reactive(i1, i2, -1, ...factors);
    s.reactive(i2, i1, -1, ...factors);
  },
});
