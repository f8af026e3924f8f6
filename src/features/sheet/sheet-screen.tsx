'use client';

import { Button } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import type { Sheet } from '@/core/sheet/schema';
import {
  flush,
  openSheet,
  redo,
  settleConflict,
  undo,
  useSession,
  useSheet,
  type SessionStatus,
} from '@/store/sheet-session';
import { download } from '@/ui/download';
import type { Bank } from '@/core/bank/schema';
import { BankScreen } from '../bank/bank-screen';
import { useCommands } from '../shell/commands';
import { CircuitPanel } from './circuit-panel';
import { LensPanel } from './lens-panel';
import { PathStrip } from './path-strip';
import { ReadingsTable } from './readings-table';
import { sheetCommands } from './sheet-commands';
import { SheetHeader } from './sheet-header';
import { resetUi, useUi } from './ui-state';
import { useEvaluation } from './use-evaluation';
import { WeighUp } from './weigh-up';
import styles from './sheet-screen.module.css';

/** One design as a worksheet: ask, path, circuit, picture, readings. */
export function SheetScreen({ id }: { id: string }) {
  const sheet = useSheet();
  const status = useSession((s) => s.status);
  useEffect(() => {
    resetUi();
    void openSheet(id);
    const save = () => void flush();
    window.addEventListener('pagehide', save);
    document.addEventListener('visibilitychange', save);
    return () => {
      window.removeEventListener('pagehide', save);
      document.removeEventListener('visibilitychange', save);
      save();
    };
  }, [id]);
  if (sheet?.id === id)
    return sheet.bank ? (
      <OpenBank key={id} sheet={sheet} bank={sheet.bank} status={status} />
    ) : (
      <OpenSheet key={id} sheet={sheet} status={status} />
    );
  return <Unopened status={status} />;
}

/** What every open sheet has: its commands in the palette and its name on the tab. */
function useSheetShell(title: string): void {
  const router = useRouter();
  const commands = useMemo(
    () => sheetCommands({ undo, redo, toShelf: () => router.push('/') }),
    [router],
  );
  useCommands('sheet', commands);
  useEffect(() => {
    document.title = `${title} · Jaunty Reed`;
  }, [title]);
}

/** A bank has many paths and no single one to draw: its own body under the same header. */
function OpenBank({ sheet, bank, status }: { sheet: Sheet; bank: Bank; status: SessionStatus }) {
  useSheetShell(sheet.title);
  return (
    <div className={styles.sheet}>
      <SheetHeader title={sheet.title} ask={null} made="" parts={sheet.parts} keeps={sheet.keeps} />
      <BankScreen sheet={sheet} bank={bank} />
      <Notices status={status} problem={null} />
    </div>
  );
}

function OpenSheet({ sheet, status }: { sheet: Sheet; status: SessionStatus }) {
  const { evaluation, problem } = useEvaluation();
  const chosen = useUi((s) => s.stageId);
  const stages = sheet.ways[0].stages;
  const stage = stages.find((s) => s.id === chosen) ?? stages[0];
  useSheetShell(sheet.title);
  return (
    <div className={styles.sheet}>
      <SheetHeader
        title={sheet.title}
        ask={sheet.ask}
        made={stages
          .filter((s) => s.origin === 'ask')
          .map((s) => s.topology)
          .join(' ')}
        parts={sheet.parts}
        keeps={sheet.keeps}
      />
      <div>
        <Notices status={status} problem={problem} />
        <PathStrip sheet={sheet} selected={stage?.id} evaluation={evaluation} />
      </div>
      <div className={styles.middle}>
        <CircuitPanel sheet={sheet} stage={stage} evaluation={evaluation} />
        <LensPanel sheet={sheet} evaluation={evaluation} />
      </div>
      <ReadingsTable sheet={sheet} evaluation={evaluation} />
      <WeighUp ask={sheet.ask} opAmp={sheet.parts.opAmp.model} />
    </div>
  );
}

function Notices({ status, problem }: { status: SessionStatus; problem: string | null }) {
  const router = useRouter();
  if (status.is === 'conflict') {
    return (
      <div role="alert" className={styles.notice}>
        <span>
          Another tab has changed this sheet since it was opened here. Your latest edits in this tab
          are not stored yet.
        </span>
        <Button
          size="small"
          type="primary"
          onClick={() =>
            void settleConflict(true).then((copy) => copy && router.push(`/sheet/${copy.id}`))
          }
        >
          Keep mine as a copy
        </Button>
        <Button size="small" onClick={() => void settleConflict(false)}>
          Take the other tab’s
        </Button>
      </div>
    );
  }
  if (status.is === 'failed') {
    return (
      <div role="alert" className={styles.notice}>
        {status.problem}
      </div>
    );
  }
  return problem ? (
    <div role="alert" className={styles.notice}>
      {problem}
    </div>
  ) : null;
}

function Unopened({ status }: { status: SessionStatus }) {
  if (status.is === 'missing') {
    return (
      <div className={styles.unopened}>
        <h1>There is no such sheet in this browser</h1>
        <p>
          It may have been deleted, or made in another browser. Sheets move between browsers as
          files.
        </p>
        <Link href="/">To the shelf</Link>
      </div>
    );
  }
  if (status.is === 'damaged') {
    return (
      <div className={styles.unopened} role="alert">
        <h1>This sheet cannot be read</h1>
        <p>{status.problem}</p>
        <p>It is left as it is. You can export what is stored, mend the file and import it.</p>
        <Button
          onClick={() =>
            download(
              'damaged-sheet.json',
              JSON.stringify(status.document, null, 2),
              'application/json',
            )
          }
        >
          Export what is stored
        </Button>
        <Link href="/">To the shelf</Link>
      </div>
    );
  }
  return <div className={styles.unopened} aria-busy="true" />;
}
