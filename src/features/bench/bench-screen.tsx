'use client';

import { Button, Input } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { nameOfValue, placeOfPart, valueKey } from '@/core/bench/board-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { formatQuantity } from '@/core/quantity/format';
import { useOpenLibrary, followOpenLibrary, useSolvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { openSheet } from '@/store/session-storage';
import { redo, undo, useSheet } from '@/store/sheet-session';
import { dateWords } from '@/ui/controls/date-words';
import { followSpread, useSpreads } from '../sheet/spreads';
import { Unopened } from '../sheet/unopened';
import { useCommands } from '../shell/commands';
import { useGo } from '../shell/leave-guard';
import { attempt, attemptStored } from '../shell/tell';
import { addBoard, addTake, changeBoard, removeTake, type BroughtTake } from './bench-actions';
import { BoardReadings } from './board-readings';
import { BringTake } from './bring-take';
import { ComparePicture, PredictionPicture } from './compare-picture';
import { RigButton } from './rig-form';
import { StepList } from './step-list';
import { SuspectList } from './suspect-list';
import { quantityOfPart } from './suspect-words';
import { useComparison } from './use-comparison';
import { useSteps } from './use-steps';
import styles from './bench.module.css';

/** The boards of a sheet: what was measured of them, against what was predicted, and which part explains it. */
export function BenchScreen({ id }: { id: string }) {
  const sheet = useSheet();
  useEffect(() => void openSheet(id), [id]);
  if (sheet?.id !== id) return <Unopened id={id} />;
  return sheet.bank || sheet.crossover ? <NotYet sheet={sheet} /> : <Bench sheet={sheet} />;
}

const COMMANDS = [
  { id: 'undo', title: 'Undo', group: 'Sheet' as const, keys: 'mod+z', run: undo },
  { id: 'redo', title: 'Redo', group: 'Sheet' as const, keys: 'mod+shift+z', run: redo },
];

function NotYet({ sheet }: { sheet: Sheet }) {
  return (
    <div className={styles.screen}>
      <header className={styles.header}>
        <h1>{sheet.title}</h1>
        <BackButton sheet={sheet} />
      </header>
      <p>
        The bench holds one path at a time against its takes. To measure a channel or a way of this
        sheet, make it a sheet of its own.
      </p>
    </div>
  );
}

function BackButton({ sheet }: { sheet: Sheet }) {
  const go = useGo();
  return (
    <Button onClick={() => go(`/sheet/${encodeURIComponent(sheet.id)}`)}>Back to the sheet</Button>
  );
}

export function Bench({ sheet: open }: { sheet: Sheet }) {
  useEffect(followOpenLibrary, []);
  useEffect(followSpread, []);
  useCommands('bench', COMMANDS);
  const sheet = useSolvedSheet(open);
  const { takes } = useOpenLibrary((s) => s.library);
  const [boardId, setBoardId] = useState<string | null>(null);
  const [takeId, setTakeId] = useState<string | null>(null);
  const [chosen, setChosen] = useState(0);
  useEffect(() => {
    document.title = `Bench for ${sheet.title} · Jaunty Reed`;
  }, [sheet.title]);
  const board =
    sheet.boards.find((b) => b.id === boardId) ??
    (sheet.boards as readonly (Sheet['boards'][number] | undefined)[]).at(-1);
  const ofBoard = useMemo(
    () => (board?.takes ?? []).flatMap((id) => takes.find((t) => t.id === id) ?? []),
    [board, takes],
  );
  const take = ofBoard.find((t) => t.id === takeId) ?? ofBoard.at(-1);
  const { result: comparison, problem } = useComparison(sheet, board, take);
  const spread = useSpreads((s) => (s.stale ? null : s.spread));
  const taken = (name: string, brought: BroughtTake) =>
    void attemptStored('The take was not kept', async () => {
      const added = await addTake(board?.id, name, brought);
      setBoardId(added.board);
      setTakeId(added.take);
      setChosen(0);
    });
  const measured = (part: string, value: number) =>
    attempt(() => {
      const place = placeOfPart(sheet, part);
      if (!place || !board) return;
      const key = valueKey(sheet.ways[0].id, place.stage, place.part);
      changeBoard(board.id, ({ values }) => ({ values: { ...values, [key]: value } }));
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
        <div className={styles.actions}>
          <BackButton sheet={sheet} />
          {board && <Button onClick={() => window.print()}>Print the steps</Button>}
          <BringTake onTake={taken} />
          <RigButton sheet={sheet} onTake={taken} />
        </div>
      </header>
      <div className={styles.columns}>
        <section className={styles.left} aria-label="The board: building it and its takes">
          <div className={styles.building}>
            <Building sheet={sheet} board={board} />
            {board && <BoardFacts sheet={sheet} board={board} />}
          </div>
          <div className={styles.ofBoard}>
            <h2>Takes{board ? ` of ${board.name}` : ''}</h2>
            {ofBoard.length === 0 && (
              <p className={styles.soft}>
                None yet. Bring in what you measured, or try the bench with a simulated board.
              </p>
            )}
            <ul className={styles.takes}>
              {[...ofBoard].reverse().map((t) => (
                <li key={t.id}>
                  <button
                    type="button"
                    aria-pressed={t.id === take?.id}
                    className={t.id === take?.id ? `${styles.take} ${styles.current}` : styles.take}
                    onClick={() => {
                      setTakeId(t.id);
                      setChosen(0);
                    }}
                  >
                    {t.name}
                    <span className={styles.small}>
                      {dateWords(t.at, 'short')}, {t.frequenciesHz.length} points
                      {t.phaseDegrees ? ' with phase' : ''}
                    </span>
                  </button>
                  <Button
                    size="small"
                    type="text"
                    aria-label={`Remove ${t.name}`}
                    onClick={() => attempt(() => removeTake(board!.id, t.id))}
                  >
                    ×
                  </Button>
                </li>
              ))}
            </ul>
          </div>
        </section>
        <section className={styles.middle} aria-label="Compare">
          {take && comparison ? (
            <ComparePicture
              fromHz={sheet.view.fromHz}
              toHz={sheet.view.toHz}
              take={take}
              comparison={comparison}
              spread={spread}
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
              {!take && spread && (
                <PredictionPicture
                  fromHz={sheet.view.fromHz}
                  toHz={sheet.view.toHz}
                  spread={spread}
                />
              )}
            </>
          )}
          {problem !== null && (
            <p role="alert" className={styles.bad}>
              {problem}
            </p>
          )}
          <BoardReadings sheet={sheet} takes={takes} current={board?.id} />
        </section>
        <aside className={styles.right} aria-label="Suspects and what to do">
          <h2>Suspects</h2>
          {comparison ? (
            <SuspectList
              comparison={comparison}
              chosen={chosen}
              onChoose={setChosen}
              onMeasured={measured}
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

/** How the board is built and tried, and how far that is. */
function Building({ sheet, board }: { sheet: Sheet; board: Sheet['boards'][number] | undefined }) {
  const { result: steps, problem } = useSteps(sheet, board);
  const done = (steps ?? []).filter((s) => board?.done?.includes(s.id)).length;
  return (
    <>
      <h2 className={styles.counted}>
        Build and check
        {steps && board && (
          <span className={styles.small}>
            {done} of {steps.length}
          </span>
        )}
      </h2>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      {!board && (
        <p className={styles.soft}>
          Add a board: the steps of building it, with what should be read at each, are remembered
          for every board.
        </p>
      )}
      {board && steps && <StepList steps={steps} board={board} />}
      {board && !steps && problem === null && <p className={styles.soft}>Writing the steps …</p>}
    </>
  );
}

/** What is known of a board: values that were measured on it, and what was written down. */
function BoardFacts({ sheet, board }: { sheet: Sheet; board: Sheet['boards'][number] }) {
  const mark = usePreferences((p) => p.mark);
  const values = Object.entries(board.values);
  const forget = (key: string) =>
    attempt(() =>
      changeBoard(board.id, ({ values: all }) => ({
        values: Object.fromEntries(Object.entries(all).filter(([k]) => k !== key)),
      })),
    );
  return (
    <>
      <h2>Notes on {board.name}</h2>
      <Input.TextArea
        aria-label={`Notes on ${board.name}`}
        placeholder="Notes"
        rows={3}
        maxLength={2000}
        value={board.note}
        onChange={(e) =>
          attempt(() => changeBoard(board.id, () => ({ note: e.target.value }), `note ${board.id}`))
        }
      />
      {values.length > 0 && (
        <>
          <h3>Measured on it</h3>
          <ul className={styles.takes}>
            {values.map(([key, value]) => {
              const name = nameOfValue(sheet, key);
              return (
                <li key={key}>
                  <span className={styles.figure}>
                    {name}{' '}
                    {formatQuantity(value, quantityOfPart(name), { digits: 3, unit: true, mark })}
                  </span>
                  <Button size="small" type="text" onClick={() => forget(key)}>
                    Forget
                  </Button>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </>
  );
}
