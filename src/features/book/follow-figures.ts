import { entriesDue, figuresDue, putFigures } from '@/store/book';
import { BOOK_LIMITS } from '@/core/book/entry';
import { whenEdited, useSession } from '@/store/sheet-session';
import { engine } from '@/workers/engine';
import { openEntry } from './use-entry';

/** After an edit the readings of what it changed are told once nothing was edited for so long, milliseconds. */
const REST = 4000;

let following = false;
let timer: ReturnType<typeof setTimeout> | undefined;

/** From now on the lines of the open sheet are given their readings, once things rest. */
export function followFigures(): void {
  if (following) return;
  following = true;
  whenEdited(() => {
    clearTimeout(timer);
    const id = useSession.getState().frame?.id;
    timer = setTimeout(() => {
      // What is not told now is told when somebody looks at the line.
      if (id !== undefined) tellFigures(id).catch(() => undefined);
    }, REST);
  });
}

async function tellFigures(sheet: string): Promise<void> {
  for (const { id } of await entriesDue(sheet)) {
    const { entry, before, after } = await openEntry(id);
    const due = figuresDue(entry);
    if (due === null || !before || !after) continue;
    const { figures } = await engine().run('differences', { before, after }, {});
    await putFigures(id, due, figures.slice(0, BOOK_LIMITS.figures));
  }
}
