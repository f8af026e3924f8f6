'use client';

import { Button, Input } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, memo, Suspense, useState } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { WhatItDoes } from '@/core/sheet/summary';
import { isVisible } from '@/core/text';
import type { Card } from '@/store/card';
import { usePreferences } from '@/store/preferences';
import { Sparkline } from '@/ui/chart/sparkline';
import { dateWords } from '@/ui/controls/date-words';
import { sheetAddress } from '../shell/sheet-address';
import { exportDamaged, remove, rename } from './card-actions';
import { MoreButton } from './more-button';
import { openDamaged } from './open-damaged';
import { useCurve } from './use-curve';
import styles from './sheet-card.module.css';

const CardMenu = lazy(() => import('./card-menu').then((m) => ({ default: m.CardMenu })));

/** A sheet on the shelf: its curve, what it does, and what can be done with it. */
export const SheetCard = memo(function SheetCard({ card }: { card: Card }) {
  return card.problem === undefined ? <Readable card={card} /> : <Damaged card={card} />;
});

function Readable({ card }: { card: Card }) {
  const mark = usePreferences((p) => p.mark);
  const [renaming, setRenaming] = useState(false);
  // Shown at once; the store follows.
  const [renamed, setRenamed] = useState<{ from: string; to: string } | null>(null);
  if (renamed && renamed.from !== card.title) setRenamed(null);
  const curve = useCurve(card);
  const title = renamed?.to ?? card.title;
  const take = (text: string) => {
    setRenaming(false);
    const to = text.trim();
    if (!isVisible(to) || to === card.title) return;
    setRenamed({ from: card.title, to });
    void rename(card, to).then((done) => {
      if (!done) setRenamed(null);
    });
  };
  return (
    <article className={styles.card}>
      <Link
        href={sheetAddress(card.id)}
        prefetch={false}
        className={styles.open}
        aria-label={`Open ${title}`}
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
          <Input
            className={styles.rename}
            aria-label="New name"
            defaultValue={card.title}
            maxLength={SHEET_LIMITS.name}
            autoFocus
            onFocus={(e) => e.target.select()}
            onBlur={(e) => take(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') take(e.currentTarget.value);
              if (e.key === 'Escape') setRenaming(false);
            }}
          />
        ) : (
          <h2 className={styles.title} title={title}>
            {title}
          </h2>
        )}
        <p className={styles.ask}>{card.does && <Does does={card.does} mark={mark} />}</p>
        <p className={styles.when}>
          {card.demo ? 'Demo · ' : ''}
          {whenWords(card.updatedAt)}
        </p>
      </div>
      <More card={card} title={title} onRename={() => setRenaming(true)} />
    </article>
  );
}

/** The menu of a card exists once it was asked for: dozens of cards stand on a shelf. */
function More(props: { card: Card; title: string; onRename: () => void }) {
  const [open, setOpen] = useState<boolean>();
  const button = <MoreButton title={props.title} onClick={() => setOpen(true)} />;
  if (open === undefined) return button;
  return (
    <Suspense fallback={button}>
      <CardMenu {...props} open={open} onOpenChange={setOpen} />
    </Suspense>
  );
}

function Does({ does, mark }: { does: WhatItDoes; mark: DecimalMark }) {
  if (does.channels !== undefined) return <>bank of {does.channels} channels</>;
  if (does.ways !== undefined)
    return (
      <>
        {does.ways}-way crossover at{' '}
        <span className="mono">
          {formatQuantity(does.hz, 'hertz', { unit: true, mark, digits: 3 })}
        </span>
      </>
    );
  return (
    <>
      {does.kind}
      {does.order === undefined ? '' : `, order ${does.order}`},{' '}
      {does.placedBy === 'edge' ? 'edge' : 'centre'} at{' '}
      <span className="mono">
        {formatQuantity(does.hz, 'hertz', { unit: true, mark, digits: 3 })}
      </span>
    </>
  );
}

/** A record that cannot be read, by whatever of it is legible. */
function Damaged({ card }: { card: Card }) {
  const router = useRouter();
  const name = card.title === '' ? `without a name (${card.id.slice(0, 20)})` : `“${card.title}”`;
  return (
    <article className={`${styles.card} ${styles.damaged}`}>
      <div className={styles.text}>
        <h2 className={styles.title}>{card.title === '' ? `Sheet ${name}` : card.title}</h2>
        <p className={styles.problem}>{card.problem}</p>
        <p className={styles.when}>{whenWords(card.updatedAt)}; left as it is</p>
        <div className={styles.ways}>
          <Button
            size="small"
            aria-label={`Open what can be read of ${name}`}
            onClick={() => void openDamaged(card.id, (id) => router.push(sheetAddress(id)))}
          >
            Open what can be read
          </Button>
          <Button
            size="small"
            aria-label={`Export what is stored of ${name}`}
            onClick={() => void exportDamaged(card)}
          >
            Export
          </Button>
          <Button
            size="small"
            type="text"
            aria-label={`Delete ${name}`}
            onClick={() => void remove(card)}
          >
            Delete
          </Button>
        </div>
      </div>
    </article>
  );
}

export function whenWords(date: string): string {
  if (date === '') return 'its date is not legible';
  return `changed ${dateWords(date, 'medium')}`;
}
