import { useMemo } from 'react';
import type { Take } from '@/core/library/take';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';

/** The takes of a sheet's boards that are at hand, in the order of the boards. */
export function useTakes({ boards }: Pick<Sheet, 'boards'>): readonly Take[] {
  const takes = useOpenLibrary((s) => s.library.takes);
  return useMemo(() => {
    const wanted = [...new Set(boards.flatMap((board) => board.takes))];
    return wanted.flatMap((id) => takes.find((take) => take.id === id) ?? []);
  }, [boards, takes]);
}
