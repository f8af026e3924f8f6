import { ReedError } from '@/core/errors';
import { liftsByGain, type Ask } from '@/core/design/ask';
import { consistent } from '@/core/design/consistent';
import { readingsFollow, redesign, viewFollow } from '@/core/sheet/make';
import { checkAskFields } from '@/core/sheet/gate';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import { cut, isVisible } from '@/core/text';
import type { Topology } from '@/core/topologies/topology';
import { edit, useSession } from '@/store/sheet-session';
import { withWay } from './within';

/** Change the ask; the stages that come from it are designed anew. */
export function changeAsk(change: Partial<Ask>): void {
  const { content, frame } = useSession.getState();
  if (!content || !frame) return;
  // Before anything is worked out from it: a number beyond all bounds is told where it was typed.
  checkAskFields(change);
  const after = consistent(content.ask, change);
  edit(
    (c) => ({
      ask: after,
      ...withWay(c, (way) => redesign(way, after, c.parts)),
      readings: readingsFollow(c.readings, c.ask, after),
    }),
    undefined,
    viewFollow(frame.view, content.ask, after),
  );
}

/** Take a whole ask over, as one of the weighed designs has it. */
export function takeAsk(ask: Ask): void {
  const tidy = Object.fromEntries(Object.entries(ask).filter(([, v]) => v !== undefined)) as Ask;
  edit((c) => ({
    ask: tidy,
    ...withWay(c, (way) => redesign(way, tidy, c.parts)),
    readings: readingsFollow(c.readings, c.ask, tidy),
  }));
}

/** Take other stages; a gain they cannot have is let go. */
export function changeTopologies(topology: Topology): void {
  const ask = useSession.getState().content?.ask;
  const gainDb = ask && !liftsByGain(ask.kind) ? ask.gainDb : undefined;
  const unity = topology.gain === 'unity' && gainDb !== undefined && gainDb !== 0;
  const settable = topology.gain === 'settable' && gainDb !== undefined && gainDb < 0.5;
  const given = topology.gain === 'given' && gainDb !== undefined;
  changeAsk({
    topology: topology.id,
    ...(unity ? { gainDb: 0 } : settable || given ? { gainDb: undefined } : {}),
  });
}

export function setTitle(title: string): void {
  if (!isVisible(title)) throw new ReedError('range', 'A sheet needs a name.');
  edit(() => ({ title: cut(title.trim(), SHEET_LIMITS.name) }));
}
