import type { MeasuredCurve } from '@/core/library/take-table';
import type { Take } from '@/core/library/take';
import { freshBoard } from '@/core/sheet/boards';
import type { SheetDesign } from '@/core/sheet/schema';
import { newId, now } from '@/store/ids';
import { edit } from '@/store/sheet-session';
import { putTake } from '@/store/takes';

type Board = SheetDesign['boards'][number];

/** What was measured, with what, and what is to be known of it. */
export type BroughtTake = MeasuredCurve &
  Pick<Take, 'meter' | 'harmonics' | 'of'> & { note?: string };

/** A board more; returns its id. */
export function addBoard(): string {
  let id = '';
  edit(({ boards }) => {
    const board = freshBoard(boards);
    id = board.id;
    return { boards: [...boards, board] };
  });
  return id;
}

/** One board changed. */
export function changeBoard(
  id: string,
  change: (board: Board) => Partial<Board>,
  group?: string,
): void {
  edit(
    ({ boards }) => ({
      boards: boards.map((b) => (b.id === id ? { ...b, ...change(b) } : b)),
    }),
    group,
  );
}

/** What was read of a board with one thing read anew, or no more. */
export const readsWith = (
  reads: Board['reads'],
  id: string,
  value: number | null,
): NonNullable<Board['reads']> => ({
  ...Object.fromEntries(Object.entries(reads ?? {}).filter(([key]) => key !== id)),
  ...(value === null ? {} : { [id]: value }),
});

/**
 * Keep a take and put it to a board; to a first one where there is none.
 *
 * @returns the board it is of, and the take
 */
export async function addTake(
  board: string | undefined,
  name: string,
  { note = '', ...curve }: BroughtTake,
): Promise<{ board: string; take: string }> {
  const take: Take = {
    format: 'jaunty-reed/take',
    version: 1,
    id: newId('t'),
    name,
    at: now(),
    note,
    ...curve,
  };
  await putTake(take);
  let of = board ?? '';
  edit(({ boards }) => {
    const own = boards.find((b) => b.id === board) ?? freshBoard(boards);
    of = own.id;
    const taken = { ...own, takes: [...own.takes, take.id] };
    return {
      boards: boards.some((b) => b.id === own.id)
        ? boards.map((b) => (b.id === own.id ? taken : b))
        : [...boards, taken],
    };
  });
  return { board: of, take: take.id };
}

export const removeTake = (board: string, take: string): void =>
  changeBoard(board, ({ takes, together }) => ({
    takes: takes.filter((t) => t !== take),
    ...(together ? { together: together.filter((t) => t !== take) } : {}),
  }));

/** Whether a take is weighed with whichever other is looked at. */
export const weighTogether = (board: string, take: string, isWeighed: boolean): void =>
  changeBoard(board, ({ together = [] }) => ({
    together: isWeighed ? [...together, take] : together.filter((t) => t !== take),
  }));
