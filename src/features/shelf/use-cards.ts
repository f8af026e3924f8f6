import { useLiveQuery } from '@/store/live';
import { useEffect, useState } from 'react';
import type { Card } from '@/store/cards';
import { listCards, tendCards } from '@/store/shelf';
import { shelfReady } from '@/store/sheets';

/** Cards are looked after again when they are shown this long after the last time, milliseconds. */
const AGAIN = 30_000;
let tending: { since: number; done: Promise<unknown> } | undefined;

function tended(): Promise<unknown> {
  if (!tending || Date.now() - tending.since > AGAIN)
    tending = {
      since: Date.now(),
      // A store that cannot be opened is told of by the shell.
      done: shelfReady()
        .then(() => tendCards())
        .catch(() => undefined),
    };
  return tending.done;
}

/** Every sheet's card, brought in line with the sheets; undefined until they have been read. */
export function useCards(): Card[] | undefined {
  const [looked, setLooked] = useState(false);
  useEffect(() => void tended().then(() => setLooked(true)), []);
  const cards = useLiveQuery(listCards);
  // A shelf is called empty only when it has been looked through.
  return cards?.length === 0 && !looked ? undefined : cards;
}
