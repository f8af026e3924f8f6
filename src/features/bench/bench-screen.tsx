'use client';

import { Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { benchWays } from '@/core/bench/bench-sheet';
import { keyOf, placeOfPart } from '@/core/bench/board-circuit';
import { isOfWay, pointOfWay } from '@/core/bench/points';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary, followOpenLibrary } from '@/store/open-library';
import { openSheet } from '@/store/session-storage';
import { doneBy, redo, undo, useSheet } from '@/store/sheet-session';
import { Unopened } from '../sheet/unopened';
import { sheetAddress } from '../shell/sheet-address';
import { useCommands } from '../shell/commands';
import { useGo } from '../shell/leave-guard';
import { attempt, attemptStored } from '../shell/tell';
import { addBoard, addTake, changeBoard, type BroughtTake } from './bench-actions';
import { answerTo } from './answer-to';
import { BoardFacts } from './board-facts';
import { BoardReadings } from './board-readings';
import { BringTake } from './bring-take';
import { Building } from './building';
import { ComparePicture, PredictionPicture } from './compare-picture';
import { SweepButton } from './sweep/sweep-window';
import { SuspectList } from './suspect-list';
import { TakeList } from './take-list';
import { useBenchSheet } from './use-bench-sheet';
import { useBeside, useComparison } from './use-comparison';
import { useForeseen } from './use-foreseen';
import { WayChoice } from './way-choice';
import { WhatToDo } from './what-to-do';
import styles from './bench.module.css';

/** The boards of a sheet: what was measured of them, against what was predicted, and which part explains it. */
export function BenchScreen({ id }: { id: string }) {
  const sheet = useSheet();
  useEffect(() => void openSheet(id), [id]);
  return sheet?.id === id ? <Bench sheet={sheet} /> : <Unopened id={id} />;
}

const COMMANDS = [
  { id: 'undo', title: 'Undo', group: 'Sheet' as const, keys: 'mod+z', run: undo },
  { id: 'redo', title: 'Redo', group: 'Sheet' as const, keys: 'mod+shift+z', run: redo },
];

function BackButton({ sheet }: { sheet: Sheet }) {
  const go = useGo();
  return <Button onClick={() => go(sheetAddress(sheet.id))}>Back to the sheet</Button>;
}

export function Bench({ sheet: open }: { sheet: Sheet }) {
  useEffect(followOpenLibrary, []);
  useCommands('bench', COMMANDS);
  const { takes } = useOpenLibrary((s) => s.library);
  const [way, setWay] = useState<string | undefined>(undefined);
  const [boardId, setBoardId] = useState<string | null>(null);
  const [takeId, setTakeId] = useState<string | null>(null);
  const [chosen, setChosen] = useState(0);
  const sheet = useBenchSheet(open, way);
  const [{ id: wayId }] = sheet.ways;
  const firstWay = open.ways[0].id;
  useEffect(() => {
    document.title = `Bench for ${sheet.title} · Jaunty Reed`;
  }, [sheet.title]);
  const board =
    sheet.boards.find((b) => b.id === boardId) ??
    (sheet.boards as readonly (Sheet['boards'][number] | undefined)[]).at(-1);
  const ofWay = useMemo(
    () => takes.filter((t) => isOfWay(t.of, wayId, firstWay)),
    [takes, wayId, firstWay],
  );
  const ofBoard = useMemo(
    () => (board?.takes ?? []).flatMap((id) => ofWay.find((t) => t.id === id) ?? []),
    [board?.takes, ofWay],
  );
  const take = ofBoard.find((t) => t.id === takeId) ?? ofBoard.at(-1);
  const beside = useBeside(board, ofBoard, take);
  const { result: comparison, problem } = useComparison(sheet, board, take, beside);
  const next = comparison?.findings.next;
  const { result: foreseen, problem: unforeseen } = useForeseen(sheet);
  const taken = (name: string, brought: BroughtTake) =>
    void attemptStored('The take was not kept', async () => {
      const of = pointOfWay(sheet, brought.of, wayId, firstWay);
      const added = await addTake(board?.id, name, { ...brought, ...(of ? { of } : {}) });
      setBoardId(added.board);
      setTakeId(added.take);
      setChosen(0);
    });
  const putValues = (values: Readonly<Record<string, number>>) =>
    attempt(() => {
      if (!board) return;
      const keyed = Object.entries(values).flatMap(([part, value]): [string, number][] => {
        const place = placeOfPart(sheet, part);
        return place ? [[keyOf(place), value]] : [];
      });
      doneBy('Suspect', () =>
        changeBoard(board.id, ({ values: all }) => ({
          values: { ...all, ...Object.fromEntries(keyed) },
        })),
      );
      setChosen(0);
    });
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>
          {sheet.title}
          {board && <span className={styles.printed}>, {board.name}</span>}
        </h1>
        <nav className={styles.boards} aria-label="Boards">
          {sheet.boards.map((b) => (
            <button
              key={b.id}
              type="button"
              aria-pressed={b.id === board?.id}
              className={b.id === board?.id ? `${styles.board} ${styles.current}` : styles.board}
              onClick={() => {
                setBoardId(b.id);
                setTakeId(null);
                setChosen(0);
              }}
            >
              {b.name}
            </button>
          ))}
          <button
            type="button"
            className={styles.add}
            onClick={() => attempt(() => setBoardId(addBoard()))}
          >
            + board
          </button>
        </nav>
        <WayChoice
          ways={benchWays(open)}
          chosen={wayId}
          onChoose={(id) => {
            setWay(id);
            setTakeId(null);
            setChosen(0);
          }}
        />
        <div className={styles.actions}>
          <BackButton sheet={sheet} />
          {board && <Button onClick={() => window.print()}>Print the steps</Button>}
          <BringTake sheet={sheet} onTake={taken} />
          <SweepButton sheet={sheet} board={board} onTake={taken} />
        </div>
      </header>
      <div className={styles.columns}>
        <section className={styles.left} aria-label="The board: building it and its takes">
          <div className={styles.building}>
            <Building
              sheet={sheet}
              own={wayId === firstWay ? '' : `${wayId}/`}
              board={board}
              foreseen={foreseen}
              unforeseen={unforeseen}
              onTake={taken}
            />
            {board && <BoardFacts sheet={sheet} board={board} />}
          </div>
          <div className={styles.ofBoard}>
            <TakeList
              sheet={sheet}
              board={board}
              takes={ofBoard}
              chosen={take?.id}
              onChoose={(id) => {
                setTakeId(id);
                setChosen(0);
              }}
            />
          </div>
        </section>
        <section className={styles.middle} aria-label="Compare">
          {take && comparison ? (
            <ComparePicture
              fromHz={sheet.view.fromHz}
              toHz={sheet.view.toHz}
              take={take}
              comparison={comparison}
              spread={foreseen?.spread ?? null}
              chosen={chosen}
            />
          ) : (
            <>
              <p className={styles.soft} role="status">
                {problem !== null
                  ? 'The take is not compared:'
                  : take
                    ? 'Comparing …'
                    : 'What the board should measure like. Here a take meets it.'}
              </p>
              {!take && foreseen && (
                <PredictionPicture
                  fromHz={sheet.view.fromHz}
                  toHz={sheet.view.toHz}
                  foreseen={foreseen}
                />
              )}
            </>
          )}
          {problem !== null && (
            <p role="alert" className={styles.bad}>
              {problem}
            </p>
          )}
          <BoardReadings
            sheet={sheet}
            takes={ofWay}
            limits={foreseen?.spread.readings ?? null}
            current={board?.id}
          />
        </section>
        <aside className={styles.right} aria-label="Suspects and what to do">
          <h2>Suspects</h2>
          {comparison ? (
            <SuspectList
              comparison={comparison}
              beside={beside.map((t) => t.name)}
              chosen={chosen}
              onChoose={setChosen}
              whatToDo={
                board &&
                take && (
                  <WhatToDo
                    sheet={sheet}
                    board={board}
                    take={take}
                    comparison={comparison}
                    chosen={chosen}
                    onValues={putValues}
                  />
                )
              }
              {...(board && take && next ? { answer: answerTo(board, next, take.id) } : {})}
            />
          ) : (
            <p className={styles.soft}>
              From a take: which part is off, by how much, and how sure that is.
            </p>
          )}
        </aside>
      </div>
    </div>
  );
}
