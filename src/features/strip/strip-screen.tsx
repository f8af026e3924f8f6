'use client';

import { Button, Segmented } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { messageOf } from '@/core/errors';
import { formatFixed } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { partsOver, type Board, type Component } from '@/core/strip/board';
import { holeWords } from '@/core/strip/check';
import { openSheet } from '@/store/session-storage';
import { redo, undo, useSheet } from '@/store/sheet-session';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { usePreferences } from '@/store/preferences';
import { engine } from '@/workers/engine';
import { Unopened } from '../sheet/unopened';
import { sheetAddress } from '../shell/sheet-address';
import { useCommands } from '../shell/commands';
import { useGo } from '../shell/leave-guard';
import { attempt } from '../shell/tell';
import { PITCH_MM, StripBoard } from './strip-board';
import { keepBoard, sizeBoard, useBoard } from './use-board';
import styles from './strip.module.css';

/** A stripboard for a sheet: planned by search, moved by hand, checked along its copper, printed to size. */
export function StripScreen({ id }: { id: string }) {
  const sheet = useSheet();
  useEffect(() => void openSheet(id), [id]);
  return sheet?.id === id ? <Stripboard sheet={sheet} /> : <Unopened id={id} />;
}

const COMMANDS = [
  { id: 'undo', title: 'Undo', group: 'Sheet' as const, keys: 'mod+z', run: undo },
  { id: 'redo', title: 'Redo', group: 'Sheet' as const, keys: 'mod+shift+z', run: redo },
];

export function Stripboard({ sheet }: { sheet: Sheet }) {
  const open = useBoard(sheet);
  const { components, board, faults, changed, problem } = open;
  const [side, setSide] = useState<'parts' | 'copper'>('parts');
  const [chosen, setChosen] = useState<string | null>(null);
  const { plan, stop, part, failed } = usePlanning(sheet);
  const go = useGo();
  useCommands('board', COMMANDS);
  useEffect(() => {
    document.title = `Stripboard for ${sheet.title} · Jaunty Reed`;
  }, [sheet.title]);
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <div>
          <h1>Stripboard for {sheet.title}</h1>
          <Size board={board} parts={components.length} />
        </div>
        <div className={styles.actions}>
          <Button onClick={() => go(sheetAddress(sheet.id))}>Back to the sheet</Button>
          {board && (
            <Segmented
              aria-label="Side"
              value={side}
              options={[
                { value: 'parts', label: 'Parts side' },
                { value: 'copper', label: 'Copper side' },
              ]}
              onChange={setSide}
            />
          )}
          {part === null ? (
            <Button type="primary" disabled={problem !== null} onClick={plan}>
              {board ? 'Plan another' : 'Plan it'}
            </Button>
          ) : (
            <Button onClick={stop}>Stop, {Math.round(part * 100)} % done</Button>
          )}
          {board && <Button onClick={() => window.print()}>Print to size</Button>}
        </div>
      </header>
      {[problem, failed].map(
        (words) =>
          words !== null && (
            <p key={words} role="alert" className={styles.bad}>
              {words}
            </p>
          ),
      )}
      {changed && (
        <p role="alert" className={styles.bad}>
          The circuit has changed since this board was planned:{' '}
          {[...changed.come.map((c) => `${c} has come`), ...changed.gone.map((c) => `${c} is gone`)]
            .slice(0, 8)
            .join(', ')}
          . Plan it again.
        </p>
      )}
      {board && (
        <div className={styles.middle}>
          <div className={styles.paper}>
            <StripBoard
              components={components}
              board={board}
              faults={faults}
              mirrored={side === 'copper'}
              chosen={chosen}
              onChoose={setChosen}
            />
            <div className={styles.ruler}>50 mm, if it is printed to size</div>
          </div>
          <Beside components={components} board={board} faults={faults.map((f) => f.words)} />
        </div>
      )}
    </div>
  );
}

function Size({ board, parts }: { board: Board | null; parts: number }) {
  const mark = usePreferences((p) => p.mark);
  if (!board)
    return (
      <p>
        {parts} parts and wires to place. The search puts each where it costs least, then moves,
        turns and stretches them.
      </p>
    );
  const count = (side: 'rows' | 'cols', label: string) => (
    <EditableQuantity
      label={label}
      shown={String(board[side])}
      value={board[side]}
      kind="ratio"
      mark={mark}
      width={56}
      onCommit={(holes) => sizeBoard(side, holes!)}
    />
  );
  const mm = (holes: number) => formatFixed(holes * PITCH_MM, 0, mark);
  return (
    <p>
      {count('rows', 'Strips')} strips of {count('cols', 'Holes of a strip')} holes,{' '}
      {mm(board.cols)} by {mm(board.rows)} mm; {board.cuts.length} cuts, {board.links.length} links
    </p>
  );
}

interface BesideProps {
  components: readonly Component[];
  board: Board;
  faults: readonly string[];
}

/** What is right or wrong, and what there is to do. */
function Beside({ components, board, faults }: BesideProps) {
  return (
    <aside className={styles.side} aria-label="Check and lists">
      <div role="status">
        {faults.length === 0 ? (
          <p className={styles.right}>
            ✓ The copper joins what the circuit joins, and nothing else.
          </p>
        ) : (
          <ul className={styles.bad}>
            {[...new Set(faults)].slice(0, 8).map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        )}
      </div>
      <h2>Cut the strips at</h2>
      <ol>
        {board.cuts.map((cut) => (
          <li key={holeWords(cut)}>{holeWords(cut)}</li>
        ))}
      </ol>
      <h2>Links</h2>
      <ol>
        {board.links.map((link) => {
          const words = `${holeWords(link.from)} to ${holeWords(link.to)}`;
          const over = partsOver(link, components, board.parts);
          return (
            <li key={words}>
              {words}
              {over.length > 0 && `, under ${over.join(' and ')}: solder it first`}
            </li>
          );
        })}
      </ol>
      <p className={styles.keys}>
        Drag a part, or move it by the arrow keys while it is chosen; T turns it, + and − stretch
        its wires. Cuts and links follow.
      </p>
      <h2>Before you solder</h2>
      <p>
        Amplifiers have the usual pins of a case of eight: look at your maker’s sheet. Cut on the
        copper side, where left is right. Irons burn and fumes hurt: solder in moving air, wash your
        hands, and let nothing be plugged in meanwhile.
      </p>
    </aside>
  );
}

/** The search, beside the page. */
function usePlanning(sheet: Sheet) {
  const [part, setPart] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  const seed = useRef(0);
  const stop = () => {
    running.current?.abort();
    running.current = null;
    setPart(null);
  };
  useEffect(() => stop, []);
  const plan = () => {
    stop();
    const own = new AbortController();
    running.current = own;
    seed.current++;
    setPart(0);
    setFailed(null);
    engine()
      .run('strip', { sheet, seed: seed.current }, { signal: own.signal, progress: setPart })
      .then((board) => attempt(() => keepBoard(board)))
      .catch((error: unknown) => {
        if (!own.signal.aborted) setFailed(messageOf(error));
      })
      .finally(() => {
        if (running.current === own) stop();
      });
  };
  return { plan, stop, part, failed };
}
