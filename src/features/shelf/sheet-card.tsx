'use client';

import { App, Dropdown } from 'antd';
import { Ellipsis } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { mainHz, placedBy } from '@/core/design/ask';
import { formatQuantity } from '@/core/quantity/format';
import type { LayerTrace } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { messageOf } from '@/core/errors';
import { usePreferences } from '@/store/preferences';
import { addSheet, renameSheet, type ShelfItem } from '@/store/sheets';
import { Sparkline } from '@/ui/chart/sparkline';
import { download, fileName } from '@/ui/download';
import { engine } from '@/workers/engine';
import styles from './sheet-card.module.css';

/** A sheet on the shelf: its curve, its ask, and what can be done with it. */
export function SheetCard({
  item,
  onRemove,
}: {
  item: ShelfItem;
  onRemove: (id: string, title: string) => void;
}) {
  return 'sheet' in item ? (
    <Readable sheet={item.sheet} onRemove={onRemove} />
  ) : (
    <Damaged item={item} onRemove={onRemove} />
  );
}

function Readable({
  sheet,
  onRemove,
}: {
  sheet: Sheet;
  onRemove: (id: string, title: string) => void;
}) {
  const { message } = App.useApp();
  const mark = usePreferences((p) => p.mark);
  const [renaming, setRenaming] = useState(false);
  const curve = useCurve(sheet);
  const rename = (title: string) => {
    setRenaming(false);
    if (title.trim() === '' || title.trim() === sheet.title) return;
    renameSheet(sheet, title.trim()).catch(
      (error: unknown) => void message.error(messageOf(error)),
    );
  };
  return (
    <li className={styles.card}>
      <Link
        href={`/sheet/${encodeURIComponent(sheet.id)}`}
        className={styles.open}
        aria-label={`Open ${sheet.title}`}
      >
        <div className={styles.curve}>
          {curve && (
            <Sparkline
              x={curve.frequenciesHz}
              y={curve.levelDb}
              floor={-48}
              width={280}
              height={104}
            />
          )}
        </div>
      </Link>
      <div className={styles.text}>
        {renaming ? (
          <input
            className={styles.rename}
            aria-label="New name"
            defaultValue={sheet.title}
            maxLength={120}
            autoFocus
            onFocus={(e) => e.target.select()}
            onBlur={(e) => rename(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') rename(e.currentTarget.value);
              if (e.key === 'Escape') setRenaming(false);
            }}
          />
        ) : (
          <h2 className={styles.title}>{sheet.title}</h2>
        )}
        <p className={styles.ask}>
          {sheet.bank ? (
            <>bank of {sheet.bank.channels.length} channels</>
          ) : (
            <>
              {sheet.ask.kind}
              {sheet.ask.order === undefined ? '' : `, order ${sheet.ask.order}`},{' '}
              {placedBy(sheet.ask.kind) === 'edge' ? 'edge' : 'centre'} at{' '}
              <span className="mono">
                {formatQuantity(mainHz(sheet.ask), 'hertz', { unit: true, mark, digits: 3 })}
              </span>
            </>
          )}
        </p>
        <p className={styles.when}>
          {sheet.demo ? 'Demo · ' : ''}
          changed{' '}
          {new Date(sheet.updatedAt).toLocaleString([], {
            dateStyle: 'medium',
            timeStyle: 'short',
          })}
        </p>
      </div>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'rename', label: 'Rename' },
            { key: 'duplicate', label: 'Duplicate' },
            { key: 'export', label: 'Export sheet file' },
            { type: 'divider' },
            { key: 'delete', label: 'Delete' },
          ],
          onClick: ({ key }) => {
            if (key === 'rename') setRenaming(true);
            if (key === 'duplicate') void addSheet(sheet, `${sheet.title} (copy)`);
            if (key === 'export')
              download(
                fileName(sheet.title, 'sheet.json'),
                JSON.stringify(sheet, null, 2),
                'application/json',
              );
            if (key === 'delete') onRemove(sheet.id, sheet.title);
          },
        }}
      >
        <button type="button" className={styles.more} aria-label={`Actions for ${sheet.title}`}>
          <Ellipsis size={16} aria-hidden />
        </button>
      </Dropdown>
    </li>
  );
}

function Damaged({
  item,
  onRemove,
}: {
  item: Extract<ShelfItem, { problem: string }>;
  onRemove: (id: string, title: string) => void;
}) {
  return (
    <li className={`${styles.card} ${styles.damaged}`}>
      <div className={styles.text}>
        <h2 className={styles.title}>A sheet that cannot be read</h2>
        <p className={styles.ask}>{item.problem}</p>
        <button
          type="button"
          className={styles.plain}
          onClick={() =>
            download(
              'damaged-sheet.json',
              JSON.stringify(item.document, null, 2),
              'application/json',
            )
          }
        >
          Export what is stored
        </button>
        <button
          type="button"
          className={styles.plain}
          onClick={() => onRemove(item.id, 'the damaged sheet')}
        >
          Delete
        </button>
      </div>
    </li>
  );
}

/** The built curve, from the engine. */
function useCurve(sheet: Sheet): LayerTrace | null {
  const [curve, setCurve] = useState<LayerTrace | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    engine()
      .evaluate(sheet, { signal: stop.signal })
      .then((evaluation) => {
        const layer =
          evaluation.layers.find((l) => l.id === 'built') ??
          evaluation.layers.find((l) => l.id === 'ideal');
        if (!stop.signal.aborted) setCurve(layer?.trace ?? null);
      })
      .catch(() => setCurve(null));
    return () => stop.abort();
  }, [sheet]);
  return curve;
}
