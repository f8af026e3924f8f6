import type { SheetDesign } from './schema';

type Board = SheetDesign['boards'][number];

/** A board more, or several built at once, under a name that none has. */
export function freshBoard(boards: readonly Board[], count = 1): Board {
  let n = boards.length + 1;
  while (boards.some((b) => b.id === `b${n}`)) n++;
  return {
    id: `b${n}`,
    name: count === 1 ? `Board ${n}` : `Boards ${n}, ${count} of them`,
    values: {},
    takes: [],
    note: '',
  };
}
