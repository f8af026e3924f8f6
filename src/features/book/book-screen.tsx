'use client';

import { Button, Input, Segmented } from 'antd';
import { NotebookPen, Search } from 'lucide-react';
import { useSearchParams } from 'next/navigation';
import { lazy, Suspense, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { findLines, followBook, useBookLines } from '@/store/book-lines';
import { shelfReady } from '@/store/ready';
import { useCommands, type Command } from '../shell/commands';
import { Screen } from '../shell/screen';
import { attemptStored } from '../shell/tell';
import { isIn, NARROWED, type Narrowing } from './kind-words';
import { LineList } from './line-list';
import styles from './book.module.css';

// The lines come first: what reads sheets, parts and states is fetched beside them.
const EntryPanel = lazy(() => import('./entry-panel').then((m) => ({ default: m.EntryPanel })));
const FoundElsewhere = lazy(() =>
  import('./found-elsewhere').then((m) => ({ default: m.FoundElsewhere })),
);

const NARROWING_WORDS: Readonly<Record<Narrowing, string>> = {
  all: 'All',
  design: 'Designs',
  boards: 'Boards',
  bought: 'Bought',
  notes: 'Notes',
};

/** What was tried, decided, built and bought, latest first. */
export function BookScreen() {
  const asked = useSearchParams().get('line');
  const { lines, complete } = useBookLines();
  const [query, setQuery] = useState('');
  const wanted = useDeferredValue(query);
  const [narrowing, setNarrowing] = useState<Narrowing>('all');
  const [chosen, setChosen] = useState<string | null>(asked);
  useEffect(() => {
    // A store that cannot be opened is told of by the shell.
    shelfReady()
      .then(() => followBook())
      .catch(() => undefined);
  }, []);
  const found = useMemo(
    () => findLines(lines, wanted).filter((line) => isIn(line, narrowing)),
    [lines, wanted, narrowing],
  );
  // Without a choice the latest line stands open.
  const open = chosen !== null && lines.some((l) => l.id === chosen) ? chosen : found.at(0)?.id;
  const write = () =>
    attemptStored('The note was not stored', async () => {
      setNarrowing('all');
      setQuery('');
      const { addNote } = await import('@/store/book');
      setChosen(await addNote(''));
    });
  const commands = useMemo(
    (): Command[] => [
      {
        id: 'book-search',
        title: 'Find in the book',
        group: 'Everywhere',
        words: 'search line note board part',
        run: () => document.getElementById('book-search')?.focus(),
      },
      { id: 'book-note', title: 'Write a note', group: 'Everywhere', run: () => void write() },
    ],
    [],
  );
  useCommands('book', commands);
  return (
    <Screen
      title="Book"
      beside={
        <>
          <p role="status">{countWords(found.length, lines.length, complete)}</p>
          <Input
            id="book-search"
            className={styles.search}
            prefix={<Search size={14} aria-hidden />}
            placeholder="Find: C2, 22n, hum, board 7 …"
            aria-label="Find lines, sheets, boards and parts"
            allowClear
            maxLength={100}
            value={query}
            onChange={(e) => setQuery(e.target.value)}
          />
          <Segmented<Narrowing>
            aria-label="Which lines"
            value={narrowing}
            options={(Object.keys(NARROWED) as Narrowing[]).map((value) => ({
              value,
              label: NARROWING_WORDS[value],
            }))}
            onChange={setNarrowing}
          />
          <Button icon={<NotebookPen size={15} />} onClick={() => void write()}>
            Write a note
          </Button>
        </>
      }
    >
      <div className={styles.columns}>
        <div className={styles.left}>
          {wanted.trim() !== '' && (
            <Suspense>
              <FoundElsewhere query={wanted} />
            </Suspense>
          )}
          {found.length > 0 ? (
            <LineList lines={found} chosen={open ?? null} onChoose={setChosen} />
          ) : (
            <p className={styles.empty}>
              {lines.length > 0
                ? 'No line has these words.'
                : complete
                  ? 'Nothing is written yet. Change a value on a sheet, keep a state, measure a board: the book writes it down.'
                  : ''}
            </p>
          )}
        </div>
        <section className={styles.right} aria-label="The open line">
          {open !== undefined && (
            <Suspense>
              <EntryPanel id={open} />
            </Suspense>
          )}
        </section>
      </div>
    </Screen>
  );
}

function countWords(found: number, all: number, complete: boolean): string {
  if (!complete && all === 0) return '';
  const lines = (n: number) => (n === 1 ? 'one line' : `${n} lines`);
  return found === all ? lines(all) : `${found} of ${lines(all)}`;
}
