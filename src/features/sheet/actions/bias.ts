import { biasStageOf } from '@/core/bias';
import type { BiasAsk, BiasStage } from '@/core/bias/stage';
import { ReedError } from '@/core/errors';
import { biasedStage, biasOf, USUAL_BIAS } from '@/core/sheet/bias';
import { freshStageId } from '@/core/sheet/make';
import type { Stage } from '@/core/sheet/schema';
import { edit, editView, type SheetContent } from '@/store/sheet-session';
import { WAY, withStage, withStageAfter } from './within';

/** A transistor stage between what stands there, begun for the source and the load of the sheet. */
export function addBias(made: BiasStage, after: string | null): string {
  let id = '';
  edit((c) => {
    id = freshStageId(c.ways[WAY]);
    return withStageAfter(c, after, biasedStage(id, made, { ...USUAL_BIAS, ...aroundIt(c) }));
  });
  editView({ lens: 'bias' });
  return id;
}

/** What the ends of the path are, for a stage that stands alone. */
function aroundIt({ source, ways }: SheetContent): Partial<BiasAsk> {
  const { ohms } = ways[WAY].to.is === 'driver' ? { ohms: null } : ways[WAY].to;
  return {
    ...(source.ohms > 0 ? { sourceOhms: source.ohms } : {}),
    ...(ohms === null ? {} : { loadOhms: ohms }),
  };
}

/** Ask something else of a transistor stage: all its values are chosen anew. */
export function askBias(id: string, change: Partial<BiasAsk>): void {
  replan(id, (stage) => {
    const { made, ask } = biasOf(stage);
    return biasedStage(id, made, { ...ask, ...change });
  });
}

/** Another transistor stage in its place, for the same ask. */
export function becomeBias(id: string, to: string): void {
  replan(id, (stage) => {
    const made = biasStageOf(to);
    if (!made) throw new ReedError('range', 'There is no such transistor stage.');
    return biasedStage(id, made, biasOf(stage).ask);
  });
}

function replan(id: string, change: (stage: Stage) => Stage): void {
  edit((c) => withStage(c, id, change));
}
