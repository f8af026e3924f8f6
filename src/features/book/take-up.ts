import { designOf } from '@/core/sheet/design-of';
import type { Sheet } from '@/core/sheet/schema';
import { addSheet } from '@/store/sheets';
import { flush, openSheet } from '@/store/session-storage';
import { doneBy, edit, useSession } from '@/store/sheet-session';

/** A sheet without the models that it was given for being solved. */
const bare = (state: Sheet): Sheet => ({
  ...state,
  ways: state.ways.map((way) => {
    const to: Record<string, unknown> = { ...way.to };
    delete to.model;
    return { ...way, to: to as typeof way.to };
  }),
});

/**
 * Put a sheet back into a state that the book keeps. Boards and what was measured of them stay as they
 * are now: they are no matter of design. Undo brings the present back.
 */
export async function takeUp(id: string, state: Sheet): Promise<void> {
  await openSheet(id);
  if (useSession.getState().frame?.id !== id) return;
  doneBy('Taken up again', () =>
    edit(({ boards }) => ({
      bank: undefined,
      crossover: undefined,
      stripboard: undefined,
      ...designOf(bare(state)),
      boards,
    })),
  );
  await flush();
}

/** A sheet of its own made of a state; returns its id. */
export async function makeSheetOf(state: Sheet): Promise<string> {
  const { id } = await addSheet(bare(state));
  return id;
}
