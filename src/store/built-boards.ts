import type { SheetContent } from './session-state';
import { takeFromDrawer } from './drawer';
import { undo, whenEdited } from './sheet-session';

/*
 * The drawer follows the boards of the open sheet: what a built one takes is counted down, and comes
 * back when that is undone, whichever way.
 */

/** What the built boards of a sheet have taken, by entry of the drawer. */
function tookOf({ boards }: Pick<SheetContent, 'boards'>): Map<string, number> {
  const sum = new Map<string, number>();
  for (const { took = {} } of boards)
    for (const [entry, pieces] of Object.entries(took))
      sum.set(entry, (sum.get(entry) ?? 0) + pieces);
  return sum;
}

/** What has to be taken from the drawer so that it fits a change of boards; negative: put back. */
export function takenBetween(
  before: Pick<SheetContent, 'boards'>,
  after: Pick<SheetContent, 'boards'>,
): Map<string, number> {
  const [was, is] = [tookOf(before), tookOf(after)];
  return new Map(
    [...new Set([...was.keys(), ...is.keys()])].flatMap((entry): [string, number][] => {
      const more = (is.get(entry) ?? 0) - (was.get(entry) ?? 0);
      return more === 0 ? [] : [[entry, more]];
    }),
  );
}

let following = false;
/** A change that was refused is being gone back on: nothing was taken for it, and nothing comes back. */
let goingBack = false;

/**
 * From now on let the drawer follow.
 *
 * @param refused told why parts could not be taken; the change is gone back on then
 */
export function followBoards(refused: (error: unknown) => void): void {
  if (following) return;
  following = true;
  whenEdited((before, after) => {
    if (before.boards === after.boards || goingBack) return;
    const taken = takenBetween(before, after);
    if (taken.size === 0) return;
    takeFromDrawer(taken).catch((error: unknown) => {
      refused(error);
      // Only where parts were wanted: what could not be put back is no reason to build again.
      if (![...taken.values()].some((pieces) => pieces > 0)) return;
      goingBack = true;
      undo();
      goingBack = false;
    });
  });
}
