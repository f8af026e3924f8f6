import { useEffect, useMemo, useState } from 'react';
import { deal, keyOf, type Place, type PracticeBoard } from '@/core/practice/deal';
import { measure, type Found } from '@/core/practice/measure';
import type { PracticeRecord } from '@/core/practice/record';
import type { Sheet } from '@/core/sheet/schema';

/** The sheets that practice boards are of: as they were designed, whatever became of them on the shelf. */
export function usePracticeSheets(): readonly Sheet[] | null {
  const [sheets, setSheets] = useState<readonly Sheet[] | null>(null);
  useEffect(() => {
    let wanted = true;
    void import('@/core/demo/made.json').then(({ default: made }) => {
      if (wanted) setSheets(made as unknown as Sheet[]);
    });
    return () => {
      wanted = false;
    };
  }, []);
  return sheets;
}

/** A board as it was dealt, and everything that was measured of it; measured again it is the same. */
export function usePracticeBoard(
  sheets: readonly Sheet[],
  place: Place,
  { asked }: PracticeRecord,
): { board: PracticeBoard; found: readonly Found[] } {
  const key = keyOf(place);
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const board = useMemo(() => deal(place, sheets), [key, sheets]);
  const found = useMemo(() => asked.map((one, turn) => measure(board, one, turn)), [board, asked]);
  return { board, found };
}
