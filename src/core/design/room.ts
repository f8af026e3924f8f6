import { inWords } from '@/core/quantity/format';
import type { Ask } from './ask';
import { attenuationBeyond, leastOrder, prototypeForLimits, selectivity } from './limits';

/** With all the room there is: half the asked ripple, and so many decibels more down. */
const RIPPLE_LESS = 0.5;
const MORE_DOWN_DB = 4;

/** An ask with limits drawn closer by a part of that. */
const closer = (ask: Ask, part: number): Ask => ({
  ...ask,
  limits: {
    ...ask.limits!,
    passDb: ask.limits!.passDb * (1 - RIPPLE_LESS * part),
    stopDb: ask.limits!.stopDb + MORE_DOWN_DB * part,
  },
});

/**
 * The ask that is designed for so that real parts have room within its limits: a whole order seldom
 * just meets them, and what it gives beyond is shared between pass and stop band. An ask without
 * limits is the same object.
 *
 * @throws ReedError `design` where no order meets the limits
 */
export function withRoom(ask: Ask): Ask {
  if (!ask.limits) return ask;
  const order = ask.order ?? leastOrder(ask).order;
  const meets = (part: number): boolean => {
    const tight = closer(ask, part);
    const out = selectivity(ask.kind, ask.limits!);
    const reached = attenuationBeyond(prototypeForLimits(tight, order), out);
    return reached >= tight.limits!.stopDb - ROUNDING_DB;
  };
  let [part, beyond] = meets(1) ? [1, 1] : [0, 1];
  for (let i = 0; i < HALVINGS && part < beyond; i++) {
    const middle = (part + beyond) / 2;
    if (meets(middle)) part = middle;
    else beyond = middle;
  }
  return part > 0 ? { ...closer(ask, part), order } : ask;
}

const ROUNDING_DB = 1e-7;
/** To a thousandth of the room is near enough. */
const HALVINGS = 10;

/** What is designed for instead of the asked limits, in words; nothing where there is no room. */
export function roomNote(ask: Ask): string[] {
  const inner = withRoom(ask);
  if (inner === ask) return [];
  const [pass, stop] = [inner.limits!.passDb, inner.limits!.stopDb].map((db) =>
    inWords(db, 'decibels', 2),
  );
  return [
    `What the order gives beyond that is shared out: the stages are made for ${pass} and ${stop}, so that real parts have room.`,
  ];
}
