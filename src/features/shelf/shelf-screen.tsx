'use client';

import { App, Button } from 'antd';
import { FolderInput, Plus } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useLiveQuery } from '@/store/live';
import {
  lazy,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type DragEvent,
} from 'react';
import { messageOf } from '@/core/errors';
import { readSheetText } from '@/core/sheet/read';
import { addSheet, deleteSheet, listSheets, restoreDemo, restoreSheet } from '@/store/sheets';
import { useCommands, type Command } from '../shell/commands';
import { JOBS, type Job } from './jobs';
import { SheetCard } from './sheet-card';
import styles from './shelf-screen.module.css';

const NewSheet = lazy(() => import('./new-sheet').then((m) => ({ default: m.NewSheet })));

/** All sheets as cards with their curve, and how to begin a new one. */
export function ShelfScreen() {
  const { message } = App.useApp();
  const router = useRouter();
  const items = useLiveQuery(listSheets);
  const [making, setMaking] = useState<Job | null>(null);
  const [dropping, setDropping] = useState(false);
  const [problems, setProblems] = useState<string[]>([]);
  const picker = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = 'Shelf · Jaunty Reed';
  }, []);

  const importFiles = useCallback(
    async (files: readonly File[]) => {
      const failed: string[] = [];
      let done = 0;
      for (const file of files) {
        try {
          if (file.size > 20_000_000)
            throw new Error('the file is larger than 20 MB; a sheet is far smaller.');
          await addSheet(readSheetText(await file.text()));
          done++;
        } catch (error) {
          failed.push(`${file.name}: ${messageOf(error)}`);
        }
      }
      setProblems(failed);
      if (done > 0)
        void message.success(done === 1 ? 'Imported one sheet' : `Imported ${done} sheets`);
    },
    [message],
  );
  const restore = useCallback(async () => {
    const aside = await restoreDemo();
    void message.success(
      aside > 0
        ? `The demo sheets are back; ${aside} changed by you kept under a new name`
        : 'The demo sheets are back',
    );
  }, [message]);
  const remove = (id: string, title: string) => {
    void deleteSheet(id);
    const key = `deleted-${id}`;
    void message.open({
      key,
      duration: 10,
      content: (
        <span>
          Deleted “{title}”{' '}
          <Button
            size="small"
            type="link"
            onClick={() => {
              void restoreSheet(id);
              void message.destroy(key);
            }}
          >
            Undo
          </Button>
        </span>
      ),
    });
  };
  const commands = useMemo(
    (): Command[] => [
      { id: 'new', title: 'New sheet', group: 'Shelf', keys: 'n', run: () => setMaking(JOBS[2]) },
      {
        id: 'import',
        title: 'Import a sheet file',
        group: 'Shelf',
        keys: 'i',
        run: () => picker.current?.click(),
      },
      {
        id: 'demo',
        title: 'Bring the demo sheets back',
        group: 'Shelf',
        run: () => void restore(),
      },
    ],
    [restore],
  );
  useCommands('shelf', commands);

  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setDropping(false);
    void importFiles([...event.dataTransfer.files]);
  };
  return (
    <div
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
        <p>
          {items ? (items.length === 1 ? 'One sheet' : `${items.length} sheets`) : ''} in this
          browser
        </p>
        <div className={styles.actions}>
          <Button type="text" onClick={() => void restore()}>
            Bring the demo back
          </Button>
          <Button icon={<FolderInput size={15} />} onClick={() => picker.current?.click()}>
            Import
          </Button>
          <Button type="primary" icon={<Plus size={15} />} onClick={() => setMaking(JOBS[2])}>
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
          <b>Nothing was imported from {problems.length === 1 ? 'this file' : 'these files'}:</b>
          <ul>
            {problems.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
          <Button size="small" onClick={() => setProblems([])}>
            Understood
          </Button>
        </div>
      )}
      {items?.length === 0 && (
        <p className={styles.empty}>
          The shelf is empty. Begin a new sheet, import one, or bring the demo back.
        </p>
      )}
      <ul className={styles.cards} aria-label="Sheets">
        {items?.map((item) => (
          <SheetCard key={item.id} item={item} onRemove={remove} />
        ))}
      </ul>
      <section className={styles.begin} aria-label="Begin by the job">
        <h2>Begin by the job</h2>
        <ul>
          {JOBS.map((job) => (
            <li key={job.id}>
              <button type="button" onClick={() => setMaking(job)}>
                <b>{job.title}</b>
                <span>{job.line}</span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      {making && (
        <Suspense>
          <NewSheet
            start={making}
            onClose={() => setMaking(null)}
            onMade={(sheet) => router.push(`/sheet/${sheet.id}`)}
          />
        </Suspense>
      )}
    </div>
  );
}
