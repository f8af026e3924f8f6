import { useLiveQuery } from '@/store/live';
import { useEffect } from 'react';
import type { Card } from '@/store/cards';
import { listCards, tendCards } from '@/store/shelf';
import { shelfReady } from '@/store/sheets';

/** Every sheet's card, brought in line with the sheets; undefined until they have been read. */
export function useCards(): Card[] | undefined {
  useEffect(() => {
    // A store that cannot be opened is told of by the shell.
    void shelfReady()
      .then(() => tendCards())
      .catch(() => undefined);
  }, []);
  return useLiveQuery(listCards);
}
