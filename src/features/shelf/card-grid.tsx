'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import type { Card } from '@/store/card';
import { useLeisure } from '@/ui/controls/use-leisure';
import { SheetCard } from './sheet-card';
import styles from './shelf-screen.module.css';

const LEAST_WIDTH = 300;
const GAP = 16;
const HEIGHT = 208;

/** The cards in rows; only those near the window exist. */
export function CardGrid({
  cards,
  scroller,
}: {
  cards: readonly Card[];
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const host = useRef<HTMLUListElement>(null);
  const [place, setPlace] = useState({ columns: 3, top: 0 });
  useLayoutEffect(() => {
    const measure = () => {
      if (!host.current) return;
      const columns = Math.max(
        1,
        Math.floor((host.current.clientWidth + GAP) / (LEAST_WIDTH + GAP)),
      );
      const top = host.current.offsetTop;
      setPlace((p) => (p.columns === columns && p.top === top ? p : { columns, top }));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(host.current!);
    return () => observer.disconnect();
  }, []);
  const leisure = useLeisure(50);
  useEffect(() => {
    // The cards' menus, before the first is opened.
    if (leisure) void import('./card-menu');
  }, [leisure]);
  const rows = Math.ceil(cards.length / place.columns);
  // eslint-disable-next-line react-hooks/incompatible-library -- the library keeps its own state; nothing of it is passed on
  const virtual = useVirtualizer({
    count: rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => HEIGHT + GAP,
    overscan: 2,
    scrollMargin: place.top,
  });
  return (
    <ul
      ref={host}
      className={styles.cards}
      aria-label="Sheets"
      style={{ height: Math.max(0, rows * (HEIGHT + GAP) - GAP) }}
    >
      {virtual.getVirtualItems().flatMap((row) =>
        cards
          .slice(row.index * place.columns, (row.index + 1) * place.columns)
          .map((card, column) => (
            <li
              key={card.id}
              aria-setsize={cards.length}
              aria-posinset={row.index * place.columns + column + 1}
              className={styles.place}
              style={{
                transform: `translateY(${row.start - place.top}px)`,
                left: `calc((100% + ${GAP}px) / ${place.columns} * ${column})`,
                width: `calc((100% - ${GAP * (place.columns - 1)}px) / ${place.columns})`,
                height: HEIGHT,
              }}
            >
              <SheetCard card={card} />
            </li>
          )),
      )}
    </ul>
  );
}
