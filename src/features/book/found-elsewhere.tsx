import Link from 'next/link';
import { useMemo } from 'react';
import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import type { Card } from '@/store/card';
import { drawerContents } from '@/store/drawer';
import { useLiveQuery } from '@/store/live';
import { searchCards } from '@/store/shelf';
import { useCards } from '../shelf/use-cards';
import { sheetAddress } from '../shell/sheet-address';
import styles from './book.module.css';

/** As many of each kind as are listed; the rest is counted. */
const MOST = 5;

/** Sheets, boards and parts of the drawer that hold what is looked for, above the lines that do. */
export function FoundElsewhere({ query }: { query: string }) {
  const cards = useCards();
  const drawer = useLiveQuery(drawerContents);
  const sheets = useMemo(
    () =>
      searchCards(
        (cards ?? []).filter((c) => c.deletedAt === null),
        query,
      ),
    [cards, query],
  );
  const boards = useMemo(() => boardsWith(cards ?? [], query), [cards, query]);
  const parts = useMemo(() => partsWith(drawer?.entries ?? [], query), [drawer, query]);
  if (sheets.length + boards.length + parts.length === 0) return null;
  return (
    <div className={styles.elsewhere}>
      <Found name="Sheets" count={sheets.length}>
        {sheets.slice(0, MOST).map(({ id, title }) => (
          <Link key={id} href={sheetAddress(id)}>
            {title}
          </Link>
        ))}
      </Found>
      <Found name="Boards" count={boards.length}>
        {boards.slice(0, MOST).map(({ card, board }) => (
          <Link key={`${card.id} ${board.id}`} href={sheetAddress(card.id, 'bench')}>
            {board.name} of {card.title}
          </Link>
        ))}
      </Found>
      <Found name="Drawer" count={parts.length}>
        {parts.slice(0, MOST).map((part) => (
          <Link key={part.id} href="/drawer">
            {part.quantity} × {part.name}
          </Link>
        ))}
      </Found>
    </div>
  );
}

function Found({
  name,
  count,
  children,
}: {
  name: string;
  count: number;
  children: React.ReactNode;
}) {
  if (count === 0) return null;
  return (
    <p>
      <b>{name}</b> {children}
      {count > MOST && <span className={styles.soft}> and {count - MOST} more</span>}
    </p>
  );
}

const wordsOf = (query: string) => query.toLowerCase().split(/\s+/).filter(Boolean);

function boardsWith(cards: readonly Card[], query: string) {
  const words = wordsOf(query);
  return cards
    .filter((card) => card.deletedAt === null)
    .flatMap((card) => (card.boards ?? []).map((board) => ({ card, board })))
    .filter(({ card, board }) => {
      const text = `${board.name} ${board.note}`.toLowerCase();
      return (
        words.every((w) => text.includes(w) || card.title.toLowerCase().includes(w)) &&
        words.some((w) => text.includes(w))
      );
    });
}

function partsWith(entries: readonly StockEntry[], query: string): StockEntry[] {
  const words = wordsOf(query);
  return entries.filter((entry) => {
    const { kind, value, name, make = '', place = '', note } = entry;
    const quantity = mainQuantity(partKindOf(kind));
    const printed = value === undefined || !quantity ? '' : printPart(quantity, value);
    const text = [kind, name, make, place, note, printed].join(' ').toLowerCase();
    return words.every((w) => text.includes(w));
  });
}
