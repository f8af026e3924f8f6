import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import type { Line } from '@/store/book-lines';
import { rowsOf, timeWords } from './days';
import { KIND_WORDS } from './kind-words';
import styles from './book.module.css';

const HEIGHTS = { day: 34, line: 54 };

interface LineListProps {
  lines: readonly Line[];
  chosen: string | null;
  onChoose: (id: string) => void;
}

/** The lines under their days; only those near the window exist. */
export function LineList({ lines, chosen, onChoose }: LineListProps) {
  const host = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(lines), [lines]);
  // eslint-disable-next-line react-hooks/incompatible-library -- the library keeps its own state; nothing of it is passed on
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => host.current,
    estimateSize: (i) => HEIGHTS[rows[i].is],
    overscan: 6,
  });
  // Heights belong to the rows as they were.
  useEffect(() => virtual.measure(), [rows, virtual]);
  const move = (step: number) => {
    const at = lines.findIndex((l) => l.id === chosen);
    const next = lines[Math.min(Math.max(at + step, 0), lines.length - 1)] as Line | undefined;
    if (!next) return;
    onChoose(next.id);
    virtual.scrollToIndex(rows.findIndex((r) => r.is === 'line' && r.line === next));
  };
  return (
    <div
      ref={host}
      className={styles.list}
      role="listbox"
      aria-label="Lines of the book"
      aria-activedescendant={chosen === null ? undefined : `line-${chosen}`}
      tabIndex={0}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
        e.preventDefault();
        move(e.key === 'ArrowDown' ? 1 : -1);
      }}
    >
      <div className={styles.long} style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index];
          const place = { transform: `translateY(${item.start}px)`, height: item.size };
          return row.is === 'day' ? (
            <div key={item.key} className={styles.day} style={place} role="presentation">
              {row.day}
            </div>
          ) : (
            <LineRow
              key={row.line.id}
              line={row.line}
              place={place}
              isChosen={row.line.id === chosen}
              onChoose={onChoose}
            />
          );
        })}
      </div>
    </div>
  );
}

function LineRow({
  line,
  place,
  isChosen,
  onChoose,
}: {
  line: Line;
  place: { transform: string; height: number };
  isChosen: boolean;
  onChoose: (id: string) => void;
}) {
  const more = [
    ...(line.note === '' ? [] : [line.note.split('\n')[0]]),
    ...(line.pictures === 0
      ? []
      : [line.pictures === 1 ? '1 picture' : `${line.pictures} pictures`]),
  ].join(' · ');
  return (
    <div
      id={`line-${line.id}`}
      role="option"
      aria-selected={isChosen}
      className={isChosen ? `${styles.line} ${styles.chosen}` : styles.line}
      style={place}
      onClick={() => onChoose(line.id)}
    >
      <span className={styles.when}>{timeWords(line.at)}</span>
      <span className={styles.about}>
        <b>{line.name || 'In general'}</b>
        <i>{KIND_WORDS[line.kind]}</i>
        {more !== '' && <em>{more}</em>}
      </span>
      <span
        className={line.isTakenBack ? `${styles.text} ${styles.back}` : styles.text}
        title={line.text}
      >
        {line.text}
      </span>
    </div>
  );
}
