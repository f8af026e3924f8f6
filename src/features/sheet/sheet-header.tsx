'use client';

import { Button, Dropdown, Input, Popover, Select, type InputRef } from 'antd';
import { Download, Redo2, Undo2 } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { useStore } from 'zustand';
import { SERIES_NAMES } from '@/core/quantity/series';
import type { Ask } from '@/core/design/ask';
import { SHEET_LIMITS, type Sheet } from '@/core/sheet/schema';
import { isVisible } from '@/core/text';
import { redo, undo, useSession } from '@/store/sheet-session';
import { attempt, attemptStored } from '../shell/tell';
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
  byHand,
  parts,
  keeps,
}: Pick<Sheet, 'title' | 'parts' | 'keeps'> & {
  /** None for a bank, which is asked for by its table. */
  ask: Ask | null;
  /** Topologies that the ask is built of, in order, apart by spaces. */
  made: string;
  /** Made of stages put in by hand alone: no ask describes it. */
  byHand: boolean;
}) {
  const weighing = useUi((s) => s.weighing);
  const past = useStore(useSession.temporal, (s) => s.pastStates.length);
  const future = useStore(useSession.temporal, (s) => s.futureStates.length);
  return (
    <header className={styles.header}>
      <Title title={title} />
      {!ask ? (
        <span className={styles.filler} />
      ) : byHand ? (
        <p className={styles.byHand}>Put together by hand, stage by stage.</p>
      ) : (
        <AskSentence ask={ask} made={made} />
      )}
      <div className={styles.actions}>
        {ask && !byHand && (
          <Button
            title="Every way of building it, side by side"
            onPointerEnter={() => warmWeighing(ask)}
            onFocus={() => warmWeighing(ask)}
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
        <Dropdown
          trigger={['click']}
          menu={{
            items: EXPORTS.map((e) => ({ key: e.id, label: e.title })),
            onClick: ({ key }) => {
              void attemptStored('Nothing was exported', () => exportNow(key));
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
  const input = useRef<InputRef>(null);
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
    if (isVisible(text) && text.trim() !== title) attempt(() => setTitle(text));
    setEditing(false);
  };
  return (
    <Input
      ref={input}
      className={styles.titleInput}
      aria-label="Name of the sheet"
      defaultValue={title}
      maxLength={SHEET_LIMITS.name}
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
              onChange={(resistors) => attempt(() => changeParts({ resistors }))}
              aria-label="Resistors from"
            />
          </label>
          <label>
            Capacitors from
            <Select
              size="small"
              value={parts.capacitors}
              options={SERIES_OPTIONS}
              onChange={(capacitors) => attempt(() => changeParts({ capacitors }))}
              aria-label="Capacitors from"
            />
          </label>
          <label>
            Coils from
            <Select
              size="small"
              value={parts.inductors}
              options={SERIES_OPTIONS}
              onChange={(inductors) => attempt(() => changeParts({ inductors }))}
              aria-label="Coils from"
            />
          </label>
          <p>
            Each exact value is replaced by the nearest of its series. Values you typed are replaced
            too.
          </p>
          <Button
            block
            onClick={() => {
              if (attempt(fitAgain)) setUi({ fitting: false });
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
