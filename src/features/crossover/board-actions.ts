import { ReedError } from '@/core/errors';
import { boardOf, type BoardPart } from '@/core/crossover/board/layout';
import { withTier, type Tier } from '@/core/crossover/board/tiers';
import type { BoardLayout, PlacedPart } from '@/core/sheet/board-schema';
import { edit, type SheetContent } from '@/store/sheet-session';

/*
 * What a person does to the board of a passive crossover. Parts that were never moved lie where they
 * are laid out first.
 */

function withBoard(change: (board: BoardLayout) => BoardLayout, group?: string): void {
  edit((c) => ({ crossover: changed(c, change) }), group);
}

function changed(c: SheetContent, change: (board: BoardLayout) => BoardLayout) {
  const { crossover } = c;
  if (!crossover) throw new ReedError('document', 'This sheet is no crossover.');
  return { ...crossover, board: change(boardOf({ ...c, crossover }).board) };
}

/** Lay a part elsewhere, or turn it. */
export const layPart = (
  { stage, part, xMetres, yMetres, lies, degrees }: BoardPart,
  change: Partial<PlacedPart>,
): void =>
  withBoard(
    (board) => ({
      ...board,
      parts: [
        ...board.parts.filter((p) => p.stage !== stage || p.part !== part),
        { stage, part, xMetres, yMetres, lies, degrees, ...change },
      ],
    }),
    `board ${stage}/${part}`,
  );

/** Whether what coils share counts in what is solved. */
export const countCoupling = (coupled: boolean): void =>
  withBoard((board) => ({ ...board, coupled }));

export const sizeBoard = (
  change: Partial<Pick<BoardLayout, 'widthMetres' | 'heightMetres'>>,
): void => withBoard((board) => ({ ...board, ...change }), 'board size');

/** Coils and capacitors of another build. */
export const takeTier = (tier: Tier): void => edit((c) => ({ ways: withTier(c, tier).ways }));
