'use client';

import { Button, Dropdown, Popover } from 'antd';
import { Download, Headphones, NotebookText, Redo2, Undo2 } from 'lucide-react';
import { lazy, memo, Suspense, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Ask } from '@/core/design/ask';
import type { Sheet } from '@/core/sheet/schema';
import { isVisible } from '@/core/text';
import { usePreferences } from '@/store/preferences';
import { redo, undo, useSession } from '@/store/sheet-session';
import { setListening, useListening } from '../listen/listening';
import { Coming } from '../shell/coming';
import { useGo } from '../shell/leave-guard';
import { attempt, attemptStored } from '../shell/tell';
import { setTitle } from './actions/ask';
import { AskSentence } from './ask-sentence';
import { exportNow, EXPORTS } from './exports';
import { KeepsButton } from './keeps-button';
import { setUi, useUi } from './ui-state';
import styles from './sheet-header.module.css';

/** Name, ask, and what is done with the sheet as a whole. */
export const SheetHeader = memo(function SheetHeader({
  title,
  ask,
  made,
  byHand,
  keeps,
  sentence,
  actions,
}: Pick<Sheet, 'title' | 'keeps'> & {
  /** In the place of an ask: what a sheet of another kind is asked for, and what is done with it. */
  sentence?: ReactNode;
  actions?: ReactNode;
  /** None for a bank, which is asked for by its table. */
  ask: Ask | null;
  /** Topologies that the ask is built of, in order, apart by spaces. */
  made: string;
  /** Made of stages put in by hand alone: no ask describes it. */
  byHand: boolean;
}) {
  const go = useGo();
  const weighing = useUi((s) => s.weighing);
  const past = useStore(useSession.temporal, (s) => s.pastStates.length);
  const future = useStore(useSession.temporal, (s) => s.futureStates.length);
  return (
    <header className={styles.header}>
      <Title title={title} />
      {!ask ? (
        (sentence ?? <span className={styles.filler} />)
      ) : byHand ? (
        <p className={styles.byHand}>Put together by hand, stage by stage.</p>
      ) : (
        <AskSentence ask={ask} made={made} />
      )}
      <div className={styles.actions}>
        {ask && !byHand && (
          <Button
            title="Every way of building it, side by side"
            aria-pressed={weighing}
            onClick={() => setUi({ weighing: !weighing })}
          >
            Weigh up
          </Button>
        )}
        <Button
          type="text"
          aria-label="Undo"
          title="Undo"
          disabled={past === 0}
          icon={<Undo2 size={16} />}
          onClick={undo}
        />
        <Button
          type="text"
          aria-label="Redo"
          title="Redo"
          disabled={future === 0}
          icon={<Redo2 size={16} />}
          onClick={redo}
        />
        <ListenButton />
        <MarginButton />
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              { key: 'report', label: 'Report to print or send' },
              ...EXPORTS.map((e) => ({ key: e.id, label: e.title })),
            ],
            onClick: ({ key }) => {
              if (key === 'report') go(`${window.location.pathname}/report`);
              else void attemptStored('Nothing was exported', () => exportNow(key));
            },
          }}
        >
          <Button type="text" aria-label="Export" title="Export" icon={<Download size={16} />} />
        </Dropdown>
        {actions ?? <FitButton />}
        <KeepsButton keeps={keeps} />
      </div>
    </header>
  );
});

/** Opens the dock that lets the sheet be heard. */
function ListenButton() {
  const open = useListening((s) => s.open);
  return (
    <Button
      type="text"
      aria-label="Listen to it"
      aria-pressed={open}
      title="Listen to it"
      icon={<Headphones size={16} />}
      onClick={() => setListening({ open: !open })}
    />
  );
}

/** Opens the margin, where the book’s lines of this sheet stand. */
function MarginButton() {
  const { margin, set } = usePreferences();
  return (
    <Button
      type="text"
      aria-label="Margin of the book"
      aria-pressed={margin}
      title="What was done with it: the book’s margin"
      icon={<NotebookText size={16} />}
      onClick={() => set({ margin: !margin })}
    />
  );
}

const TitleEditor = lazy(() => import('./title-editor').then((m) => ({ default: m.TitleEditor })));

function Title({ title }: { title: string }) {
  const [editing, setEditing] = useState(false);
  const take = (text: string) => {
    if (isVisible(text) && text.trim() !== title) attempt(() => setTitle(text));
    setEditing(false);
  };
  const shown = (
    <h1 className={styles.title}>
      <button
        type="button"
        title={title}
        aria-label={`${title}: rename`}
        onClick={() => setEditing(true)}
      >
        {title}
      </button>
    </h1>
  );
  return editing ? (
    <Suspense
      fallback={
        <>
          {shown}
          <Coming />
        </>
      }
    >
      <TitleEditor title={title} onTake={take} onCancel={() => setEditing(false)} />
    </Suspense>
  ) : (
    shown
  );
}

const FitForm = lazy(() => import('./fit-form').then((m) => ({ default: m.FitForm })));

/** Where real values come from, and choosing them again. */
function FitButton() {
  const open = useUi((s) => s.fitting);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={(fitting) => setUi({ fitting })}
      content={
        <Suspense fallback={<Coming />}>
          <FitForm />
        </Suspense>
      }
    >
      <Button>Fit parts</Button>
    </Popover>
  );
}
