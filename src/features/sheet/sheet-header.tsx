'use client';

import { Button, Dropdown, Popover, Select } from 'antd';
import { App } from 'antd';
import { Download, Redo2, Undo2 } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { SERIES_NAMES } from '@/core/quantity/series';
import { messageOf } from '@/core/errors';
import type { Ask } from '@/core/design/ask';
import type { Sheet } from '@/core/sheet/schema';
import { redo, undo, useSession } from '@/store/sheet-session';
import { changeParts, fitAgain, setTitle } from './actions';
import { AskSentence } from './ask-sentence';
import { exportNow, EXPORTS } from './exports';
import { KeepsButton } from './keeps-button';
import { setUi, useUi } from './ui-state';
import { warmWeighing } from './use-weighing';
import styles from './sheet-header.module.css';

/** Name, ask, and what is done with the sheet as a whole. */
export const SheetHeader = memo(function SheetHeader({
  title,
  ask,
  made,
  parts,
  keeps,
}: Pick<Sheet, 'title' | 'parts' | 'keeps'> & {
  /** None for a bank, which is asked for by its table. */
  ask: Ask | null;
  /** Topologies that the ask is built of, in order, apart by spaces. */
  made: string;
}) {
  const { message } = App.useApp();
  const past = useStore(useSession.temporal, (s) => s.pastStates.length);
  const future = useStore(useSession.temporal, (s) => s.futureStates.length);
  return (
    <header className={styles.header}>
      <Title title={title} />
      {ask ? <AskSentence ask={ask} made={made} /> : <span className={styles.filler} />}
      <div className={styles.actions}>
        {ask && (
          <Button
            title="Every way of building it, side by side"
            onPointerEnter={() => warmWeighing(ask)}
            onFocus={() => warmWeighing(ask)}
            onClick={() => setUi({ weighing: true })}
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
        <Dropdown
          trigger={['click']}
          menu={{
            items: EXPORTS.map((e) => ({ key: e.id, label: e.title })),
            onClick: ({ key }) => {
              exportNow(key).catch((error: unknown) => void message.error(messageOf(error)));
            },
          }}
        >
          <Button type="text" aria-label="Export" title="Export" icon={<Download size={16} />} />
        </Dropdown>
        <FitButton parts={parts} />
        <KeepsButton keeps={keeps} />
      </div>
    </header>
  );
});

function Title({ title }: { title: string }) {
  const [editing, setEditing] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.select(), [editing]);
  if (!editing) {
    return (
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
  }
  const take = (text: string) => {
    if (text.trim() !== '' && text.trim() !== title) setTitle(text);
    setEditing(false);
  };
  return (
    <input
      ref={input}
      className={styles.titleInput}
      aria-label="Name of the sheet"
      defaultValue={title}
      maxLength={120}
      autoFocus
      onBlur={(e) => take(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') take(e.currentTarget.value);
        if (e.key === 'Escape') setEditing(false);
      }}
    />
  );
}

const SERIES_OPTIONS = [
  ...SERIES_NAMES.filter((n) => n !== 'E3').map((n) => ({
    value: n,
    label: n,
  })),
  { value: 'exact' as const, label: 'exact' },
];

/** Where real values come from, and choosing them again. */
function FitButton({ parts }: Pick<Sheet, 'parts'>) {
  const open = useUi((s) => s.fitting);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      open={open}
      onOpenChange={(fitting) => setUi({ fitting })}
      content={
        <div className={styles.fit}>
          <label>
            Resistors from
            <Select
              size="small"
              value={parts.resistors}
              options={SERIES_OPTIONS}
              onChange={(resistors) => changeParts({ resistors })}
              aria-label="Resistors from"
            />
          </label>
          <label>
            Capacitors from
            <Select
              size="small"
              value={parts.capacitors}
              options={SERIES_OPTIONS}
              onChange={(capacitors) => changeParts({ capacitors })}
              aria-label="Capacitors from"
            />
          </label>
          <p>
            Each exact value is replaced by the nearest of its series. Values you typed are replaced
            too.
          </p>
          <Button
            block
            onClick={() => {
              fitAgain();
              setUi({ fitting: false });
            }}
          >
            Choose all values again
          </Button>
        </div>
      }
    >
      <Button>Fit parts</Button>
    </Popover>
  );
}
