import { useMemo } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import { boardComponents } from '@/core/sheet/stripboard';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Sheet } from '@/core/sheet/schema';
import type { Board, Component, Standing } from '@/core/strip/board';
import { boardFaults, type BoardFault } from '@/core/strip/check';
import { wiredBoard } from '@/core/strip/plan';
import { edit } from '@/store/sheet-session';

export interface OpenBoard {
  components: readonly Component[];
  /** Nothing before it is planned, or where parts have come or gone since. */
  board: Board | null;
  faults: readonly BoardFault[];
  /** Parts that have come to the circuit since it was planned, and those that are gone. */
  changed: { come: string[]; gone: string[] } | null;
  problem: string | null;
}

const LEAST_HOLES = 2;

const NONE = { components: [], board: null, faults: [], changed: null };

/** The board of a sheet as it stands, with its cuts, its links, and what is wrong. */
export function useBoard(sheet: Sheet): OpenBoard {
  return useMemo(() => {
    try {
      const components = boardComponents(sheet);
      const { stripboard } = sheet;
      if (!stripboard) return { ...NONE, components, problem: null };
      const ids = new Set(components.map((c) => c.id));
      const come = [...ids].filter((id) => !(id in stripboard.parts));
      const gone = Object.keys(stripboard.parts).filter((id) => !ids.has(id));
      if (come.length + gone.length > 0)
        return { ...NONE, components, changed: { come, gone }, problem: null };
      const board = wiredBoard(components, stripboard);
      return {
        components,
        board,
        faults: boardFaults(components, board),
        changed: null,
        problem: null,
      };
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      return { ...NONE, problem: messageOf(error) };
    }
  }, [sheet]);
}

/** A planned board becomes the sheet’s. */
export function keepBoard({ rows, cols, parts }: Board): void {
  edit(() => ({ stripboard: { rows, cols, parts: { ...parts } } }));
}

/** A board cut larger or smaller; what then stands beside it is said. */
export function sizeBoard(side: 'rows' | 'cols', holes: number): void {
  if (!Number.isInteger(holes) || holes < LEAST_HOLES || holes > SHEET_LIMITS.holes)
    throw new ReedError(
      'range',
      `A board has from ${LEAST_HOLES} to ${SHEET_LIMITS.holes} ${side === 'rows' ? 'strips' : 'holes to a strip'}, in whole numbers.`,
    );
  edit(({ stripboard }) => (stripboard ? { stripboard: { ...stripboard, [side]: holes } } : {}));
}

/** One part somewhere else, turned or stretched. */
export function movePart(id: string, standing: Standing): void {
  edit(
    ({ stripboard }) =>
      stripboard
        ? { stripboard: { ...stripboard, parts: { ...stripboard.parts, [id]: standing } } }
        : {},
    `board ${id}`,
  );
}
