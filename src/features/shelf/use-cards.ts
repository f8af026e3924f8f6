import { useEffect, useMemo, useState } from 'react';
import type { Card } from '@/store/card';
import { useLiveQuery } from '@/store/live';
import { inOrder, listCards } from '@/store/shelf';
import { shelfReady } from '@/store/ready';

/** Cards are looked after again when they are shown this long after the last time, milliseconds. */
const AGAIN = 30_000;
/** Cards that were read ahead have this long to appear before they are looked after, milliseconds. */
const SHOWN_FIRST = 400;
let tending: { since: number; unstored: Promise<Card[]> } | undefined;

/** @returns cards that are not stored, since there is no room for them */
function tended(): Promise<Card[]> {
  if (!tending || Date.now() - tending.since > AGAIN)
    tending = { since: Date.now(), unstored: tendOrMake().catch(() => NONE) };
  return tending.unstored;
}

async function tendOrMake(): Promise<Card[]> {
  const early = ahead;
  await shelfReady();
  // Those that are there are shown first.
  if ((await early)?.length) await new Promise((resolve) => setTimeout(resolve, SHOWN_FIRST));
  const { cardsToShow, tendCards } = await import('@/store/tend-cards');
  try {
    await tendCards();
    return NONE;
  } catch {
    // Storage is full, or gone altogether, which the shell tells of.
    return cardsToShow();
  }
}

const NONE: Card[] = [];

let ahead: Promise<Card[] | undefined> | undefined;

/** Begins to read the cards before there is a screen to show them: a thousand of them take a while. */
export function readCardsAhead(): void {
  ahead = listCards().catch(() => undefined);
}

/** Every sheet's card, brought in line with the sheets; undefined until they have been read. */
export function useCards(): Card[] | undefined {
  const [unstored, setUnstored] = useState<Card[]>();
  useEffect(() => void tended().then(setUnstored), []);
  const [early, setEarly] = useState<Card[]>();
  useEffect(() => {
    // Once: whoever comes back later finds what is there then.
    void ahead?.then(setEarly);
    ahead = undefined;
  }, []);
  const live = useLiveQuery(listCards);
  const stored = live ?? early;
  return useMemo(() => {
    // A shelf is called empty only when it has been looked through.
    if (!stored || (stored.length === 0 && !unstored)) return undefined;
    const known = new Set(stored.map((c) => c.id));
    const more = unstored?.filter((c) => !known.has(c.id)) ?? NONE;
    return more.length === 0 ? stored : inOrder([...stored, ...more]);
  }, [stored, unstored]);
}
