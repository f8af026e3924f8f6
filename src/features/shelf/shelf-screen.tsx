'use client';

import { Button, Input } from 'antd';
import { Archive, FolderInput, Plus, Search } from 'lucide-react';
import { useRouter } from 'next/navigation';
import {
  lazy,
  Suspense,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type DragEvent,
} from 'react';
import type { Sheet } from '@/core/sheet/schema';
import { searchCards } from '@/store/shelf';
import { Prepared } from '@/ui/controls/prepared';
import { sheetAddress } from '../shell/sheet-address';
import { Coming } from '../shell/coming';
import { useCommands, type Command } from '../shell/commands';
import { attemptStored, tell } from '../shell/tell';
import { CardGrid } from './card-grid';
import { useCards } from './use-cards';
import { useImport } from './use-import';
import { useLink } from './use-link';
import styles from './shelf-screen.module.css';

const NewSheet = lazy(() => import('./new-sheet').then((m) => ({ default: m.NewSheet })));
const BeginCrossover = lazy(() =>
  import('../crossover/begin/begin-crossover').then((m) => ({ default: m.BeginCrossover })),
);
const BackupReminder = lazy(() =>
  import('../archive/reminder').then((m) => ({ default: m.BackupReminder })),
);
const Deleted = lazy(() => import('./deleted').then((m) => ({ default: m.Deleted })));

/** All sheets as cards with their curve, and how to begin a new one. */
export function ShelfScreen() {
  const router = useRouter();
  const cards = useCards();
  useLink();
  const [query, setQuery] = useState('');
  const wanted = useDeferredValue(query);
  // Which window a new sheet is begun in, if any.
  const [making, setMaking] = useState<'job' | 'drivers' | null>(null);
  const [dropping, setDropping] = useState(false);
  const { importFiles, problems, dismiss } = useImport();
  const picker = useRef<HTMLInputElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    document.title = 'Shelf · Jaunty Reed';
  }, []);

  const kept = useMemo(() => cards?.filter((c) => c.deletedAt === null), [cards]);
  const deleted = useMemo(() => cards?.filter((c) => c.deletedAt !== null) ?? [], [cards]);
  const found = useMemo(() => (kept ? searchCards(kept, wanted) : []), [kept, wanted]);
  const commands = useMemo(
    (): Command[] => [
      { id: 'new', title: 'New sheet', group: 'Shelf', keys: 'n', run: () => setMaking('job') },
      {
        id: 'new-crossover',
        title: 'New crossover with drivers of your own',
        group: 'Shelf',
        run: () => setMaking('drivers'),
      },
      {
        id: 'search',
        title: 'Find a sheet by name or by what it does',
        group: 'Shelf',
        keys: 'slash',
        run: () => document.getElementById('shelf-search')?.focus(),
      },
      {
        id: 'import',
        title: 'Import a sheet file',
        group: 'Shelf',
        keys: 'i',
        run: () => picker.current?.click(),
      },
      {
        id: 'archive',
        title: 'Archive: everything in one file, and back',
        group: 'Shelf',
        words: 'backup export zip restore',
        run: () => router.push('/archive'),
      },
      {
        id: 'demo',
        title: 'Bring the demo sheets back',
        group: 'Shelf',
        run: () => void bringDemoBack(),
      },
    ],
    [router],
  );
  useCommands('shelf', commands);

  const show = ({ id }: Pick<Sheet, 'id'>) => router.push(sheetAddress(id));
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setDropping(false);
    void importFiles([...event.dataTransfer.files]);
  };
  return (
    <div
      ref={scroller}
      className={dropping ? `${styles.shelf} ${styles.dropping}` : styles.shelf}
      onDragOver={(e) => {
        if (![...e.dataTransfer.types].includes('Files')) return;
        e.preventDefault();
        setDropping(true);
      }}
      onDragLeave={(e) => e.currentTarget === e.target && setDropping(false)}
      onDrop={onDrop}
    >
      <header className={styles.header}>
        <h1>Shelf</h1>
        <p role="status">{kept ? countWords(found.length, kept.length) : ''}</p>
        <Input
          id="shelf-search"
          className={styles.search}
          prefix={<Search size={14} aria-hidden />}
          placeholder="Find: notch, order 4, 3k4, hall …"
          aria-label="Find a sheet by name or by what it does"
          allowClear
          maxLength={100}
          value={query}
          onChange={(e) => setQuery(e.target.value)}
        />
        <div className={styles.actions}>
          <Button type="text" onClick={() => void bringDemoBack()}>
            Bring the demo back
          </Button>
          <Button
            icon={<Archive size={15} />}
            onClick={() => router.push('/archive')}
            title="Everything in one file, and back"
          >
            Archive
          </Button>
          <Button icon={<FolderInput size={15} />} onClick={() => picker.current?.click()}>
            Import
          </Button>
          <Button type="primary" icon={<Plus size={15} />} onClick={() => setMaking('job')}>
            New sheet
          </Button>
        </div>
        <input
          ref={picker}
          type="file"
          accept=".json,application/json"
          multiple
          className="visually-hidden"
          tabIndex={-1}
          aria-label="Sheet files to import"
          onChange={(e) => {
            void importFiles([...(e.target.files ?? [])]);
            e.target.value = '';
          }}
        />
      </header>
      {problems.length > 0 && (
        <div role="alert" className={styles.problems}>
          <b>Not imported:</b>
          <ul>
            {problems.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
          <Button size="small" onClick={dismiss}>
            Understood
          </Button>
        </div>
      )}
      {kept?.length === 0 && (
        <p className={styles.empty}>
          The shelf is empty. Begin a new sheet, import one, or bring the demo back.
        </p>
      )}
      {kept && kept.length > 0 && found.length === 0 && (
        <p className={styles.empty}>No sheet has these words in its name or in what it does.</p>
      )}
      <Suspense>
        <BackupReminder />
      </Suspense>
      <CardGrid cards={found} scroller={scroller} />
      {deleted.length > 0 && (
        <Suspense>
          <Deleted cards={deleted} />
        </Suspense>
      )}
      {(kept || making) && (
        <Prepared open={making === 'job'} after={50}>
          <NewSheet
            open={making === 'job'}
            onClose={() => setMaking(null)}
            onMade={show}
            onDrivers={() => setMaking('drivers')}
          />
        </Prepared>
      )}
      {making === 'drivers' && (
        <Suspense fallback={<Coming />}>
          <BeginCrossover open onClose={() => setMaking(null)} onMade={show} />
        </Suspense>
      )}
    </div>
  );
}

function countWords(found: number, all: number): string {
  const sheets = all === 1 ? 'One sheet' : `${all} sheets`;
  return found === all ? `${sheets} in this browser` : `${found} of ${sheets}`;
}

async function bringDemoBack(): Promise<void> {
  await attemptStored('The demo sheets were not brought back', async () => {
    const { restoreDemo } = await import('@/store/sheets');
    const aside = await restoreDemo();
    tell(
      aside > 0
        ? `The demo sheets are back; ${aside} changed by you kept under a new name`
        : 'The demo sheets are back',
    );
  });
}
