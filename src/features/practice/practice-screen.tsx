'use client';

import { Button } from 'antd';
import { useMemo, useState } from 'react';
import { meetingIn } from '@/core/bench/compare';
import { isValued } from '@/core/mistakes/mistake';
import { BOARDS, keyOf, type Place } from '@/core/practice/deal';
import { LADDER } from '@/core/practice/ladder';
import { costOf, isRight } from '@/core/practice/reasoning';
import type { Asked } from '@/core/practice/record';
import type { Sheet } from '@/core/sheet/schema';
import { dealAnew, goOn, recordOf, usePractice } from '@/store/practice';
import { Screen } from '../shell/screen';
import { attempt } from '../shell/tell';
import { BlameForm } from './blame-form';
import { BoardSchematic } from './board-schematic';
import { LadderList } from './ladder-list';
import { LogTable } from './log-table';
import { MeasureForm } from './measure-form';
import { PracticePicture } from './practice-picture';
import { useReasoning } from './reasoning-panel';
import { usePracticeBoard, usePracticeSheets } from './use-practice-board';
import styles from './practice.module.css';

/** Boards that somebody got wrong: measure, at a cost, and name what it is. */
export function PracticeScreen() {
  const sheets = usePracticeSheets();
  return sheets ? <Practice sheets={sheets} /> : null;
}

export function Practice({ sheets }: { sheets: readonly Sheet[] }) {
  const practice = usePractice();
  const { deal } = practice;
  const [at, setAt] = useState<Place>(() => firstOpen(practice));
  // Of another deal it is the same place.
  const place = useMemo(() => ({ ...at, deal }), [at, deal]);
  const own = LADDER.flatMap((_, rung) =>
    Array.from({ length: BOARDS }, (__, board) => recordOf(practice, keyOf({ deal, rung, board }))),
  );
  const solved = own.filter((r) => r.state === 'solved');
  return (
    <Screen
      title="Practice boards"
      tab="Practice"
      beside={
        <>
          <p>
            {solved.length} of {own.length} found out
            {solved.length > 0 && `, at ${solved.reduce((sum, r) => sum + costOf(r), 0)} in all`}
          </p>
          <Button
            onClick={() => {
              dealAnew();
              setAt({ deal: deal + 1, rung: 0, board: 0 });
            }}
          >
            Deal other boards
          </Button>
        </>
      }
    >
      <div className={styles.columns}>
        <section className={styles.left} aria-label="Boards">
          <LadderList place={place} onPlace={setAt} />
        </section>
        <Board key={keyOf(place)} place={place} sheets={sheets} />
      </div>
    </Screen>
  );
}

/** Where somebody goes on who comes back: the first board that is not over. */
function firstOpen(practice: ReturnType<typeof usePractice.getState>): Place {
  const { deal } = practice;
  for (let rung = 0; rung < LADDER.length; rung++)
    for (let board = 0; board < BOARDS; board++)
      if (recordOf(practice, keyOf({ deal, rung, board })).state === 'open')
        return { deal, rung, board };
  return { deal, rung: 0, board: 0 };
}

function Board({ place, sheets }: { place: Place; sheets: readonly Sheet[] }) {
  const key = keyOf(place);
  const record = usePractice((s) => recordOf(s, key));
  const { board, found } = usePracticeBoard(sheets, place, record);
  const { circuit, fixed, probe } = board.sound;
  const meeting = useMemo(() => meetingIn(circuit, fixed), [circuit, fixed]);
  const parts = useMemo(
    () =>
      circuit.parts
        .filter((p) => isValued(p) && !fixed.has(p.id))
        .map((p) => p.id)
        .sort((a, b) => a.localeCompare(b, 'en', { numeric: true })),
    [circuit, fixed],
  );
  const [net, setNet] = useState(probe);
  const reasoning = useReasoning({ place, sheets, board, record });
  const isOver = record.state !== 'open';
  const ask = (asked: Asked) =>
    attempt(() => {
      goOn(key, (before) => ({ asked: [...before.asked, asked] }));
      if ('net' in asked) setNet(asked.net);
    });
  const blame = (named: string[]) =>
    attempt(() =>
      goOn(key, ({ blamed }) => ({
        blamed: [...blamed, named],
        ...(isRight(board.fault, named) ? { state: 'solved' as const } : {}),
      })),
    );
  return (
    <>
      <section className={styles.middle} aria-label="The board">
        <div className={styles.schematic}>
          <BoardSchematic sheet={board.sheet} />
        </div>
        {isOver && reasoning.picture ? (
          reasoning.picture
        ) : (
          <PracticePicture
            board={board}
            net={net}
            asked={record.asked}
            found={found}
            meeting={meeting}
          />
        )}
        <div className={styles.logged}>
          <LogTable asked={record.asked} found={found} meeting={meeting} />
        </div>
      </section>
      <aside className={styles.right} aria-label="What to do">
        <h2>{board.sheet.title}</h2>
        <p>{LADDER[place.rung].told}</p>
        {isOver ? (
          reasoning.words
        ) : (
          <>
            <p className={styles.soft}>So far it cost {costOf(record)}.</p>
            <MeasureForm board={board} meeting={meeting} parts={parts} onAsk={ask} />
            <h3>The culprit</h3>
            <BlameForm
              parts={parts}
              wrong={record.blamed.at(-1)}
              onBlame={blame}
              onShow={() => attempt(() => goOn(key, () => ({ state: 'shown' })))}
            />
          </>
        )}
      </aside>
    </>
  );
}
