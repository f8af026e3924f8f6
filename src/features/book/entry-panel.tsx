import { Button } from 'antd';
import Link from 'next/link';
import { useEffect, useMemo } from 'react';
import type { BookEntry, Step } from '@/core/book/entry';
import { isTakenBack } from '@/core/book/taken-back';
import { entryWords } from '@/core/book/words';
import { changeWords } from '@/core/differences/change';
import type { JobInput } from '@/core/jobs';
import type { Sheet } from '@/core/sheet/schema';
import { builtKey } from '@/core/sheet/version-key';
import { BOOK_LIMITS } from '@/core/book/entry';
import { figuresDue, putBackEntry, putFigures, removeEntry } from '@/store/book';
import { dateWords } from '@/ui/controls/date-words';
import { useJob } from '../bench/use-job';
import { sheetAddress } from '../shell/sheet-address';
import { useGo } from '../shell/leave-guard';
import { attemptStored, tell } from '../shell/tell';
import { timeWords } from './days';
import { ChangesTable, DifferencesView } from './differences-view';
import { KIND_WORDS } from './kind-words';
import { NoteField } from './note-field';
import { Pictures } from './pictures';
import { makeSheetOf, takeUp } from './take-up';
import { useEntry, type OpenEntry } from './use-entry';
import styles from './book.module.css';

/** A line of the book opened: what it says, the states it speaks of beside today’s, and why. */
export function EntryPanel({ id }: { id: string }) {
  const { found, problem } = useEntry(id);
  if (problem !== null)
    return (
      <p role="alert" className={styles.problem}>
        {problem}
      </p>
    );
  return found && <Opened {...found} />;
}

function Opened({ entry, today, before, after, problem }: OpenEntry) {
  const { id, note, pictures, kind } = entry;
  const isNote = kind === 'note';
  return (
    <article className={styles.entry} aria-label={entryWords(entry)}>
      <header>
        <h2>{entry.name || 'In general'}</h2>
        <p className={styles.soft}>
          {KIND_WORDS[kind]} · {dateWords(entry.at, 'medium')}
          {timeWords(entry.until) !== timeWords(entry.at) && ` to ${timeWords(entry.until)}`}
          {isTakenBack(entry) && ' · taken back'}
        </p>
      </header>
      {!isNote && entry.changes.length > 0 && (
        <>
          <ChangesTable changes={entry.changes} />
          {entry.more !== undefined && <p className={styles.soft}>and {entry.more} more</p>}
        </>
      )}
      {problem !== null && (
        <p role="alert" className={styles.problem}>
          {problem}
        </p>
      )}
      <NoteField id={id} note={note} label={isNote ? 'Note' : 'Why'} />
      <Pictures entry={id} pictures={pictures} />
      {before && after && <Compared entry={entry} before={before} after={after} today={today} />}
      {entry.steps.length > 1 && <Steps steps={entry.steps} />}
      <Ways entry={entry} today={today} before={before} after={after} />
    </article>
  );
}

/** The states before and after, and today’s where that is another. */
function Compared({
  entry,
  before,
  after,
  today,
}: {
  entry: BookEntry;
  before: Sheet;
  after: Sheet;
  today: Sheet | null;
}) {
  const isPast = today && entry.after !== undefined && !isSameCircuit(today, after);
  const over = isPast ? today : undefined;
  // The line is read anew whenever it is written on; its states are mostly the same.
  const states = JSON.stringify([before, after, over].map((s) => s && { ...s, updatedAt: '' }));
  const input = useMemo<JobInput<'differences'>>(
    () => ({ before, after, ...(over ? { over } : {}) }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [states],
  );
  const { result, problem } = useJob('differences', input);
  const names = useMemo(() => ['before', 'after', 'today'].slice(0, over ? 3 : 2), [over]);
  const due = figuresDue(entry);
  useEffect(() => {
    if (!result || due === null) return;
    const short = result.figures.slice(0, BOOK_LIMITS.figures);
    putFigures(entry.id, due, short).catch(() => undefined);
  }, [result, due, entry.id]);
  if (problem !== null) return <p className={styles.problem}>{problem}</p>;
  return result ? (
    <DifferencesView differences={result} view={after.view} names={names} words={false} />
  ) : (
    <p className={styles.soft}>The curves of both are being worked out …</p>
  );
}

/** Whether two states have the same curve: it is drawn once then. */
const isSameCircuit = (a: Sheet, b: Sheet): boolean =>
  builtKey({ ...a, view: b.view }) === builtKey(b);

/** Every step that the line opens into; what was gone back on is struck out. */
function Steps({ steps }: { steps: readonly Step[] }) {
  return (
    <details className={styles.steps}>
      <summary>{steps.length} steps</summary>
      <ol>
        {steps.map((step, i) => (
          <li key={i} className={step.undone ? styles.back : undefined}>
            <time dateTime={step.at}>{timeWords(step.at)}</time>
            <span>
              {step.by && `${step.by}: `}
              {step.changes.map(changeWords).join(', ')}
              {step.more !== undefined && ` and ${step.more} more`}
              {step.undone && ' (taken back)'}
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}

/** Where one goes on from a line. */
function Ways({ entry, today, before, after }: Omit<OpenEntry, 'problem'>) {
  const go = useGo();
  const { id } = entry;
  const up = (state: Sheet) =>
    attemptStored('The state was not taken up', async () => {
      if (!today) return;
      await takeUp(today.id, state);
      go(sheetAddress(today.id));
    });
  const make = (state: Sheet) =>
    attemptStored('No sheet was made of it', async () => {
      go(sheetAddress(await makeSheetOf(state)));
    });
  const remove = () =>
    attemptStored('The line was not taken out', async () => {
      await removeEntry(id);
      const back = () => void attemptStored('The line was not put back', () => putBackEntry(entry));
      tell(
        <>
          The line is out of the book.{' '}
          <Button size="small" type="link" onClick={back}>
            Put it back
          </Button>
        </>,
        { seconds: 8 },
      );
    });
  return (
    <div className={styles.ways}>
      {today && <Link href={sheetAddress(today.id)}>To the sheet as it is now</Link>}
      {today && before && <Button onClick={() => void up(before)}>Take up the state before</Button>}
      {today && after && entry.after !== undefined && (
        <Button onClick={() => void up(after)}>Take up the state after</Button>
      )}
      {(after ?? before) && (
        <Button onClick={() => void make((after ?? before)!)}>Make a sheet of it</Button>
      )}
      <Button type="text" onClick={() => void remove()}>
        Take the line out
      </Button>
    </div>
  );
}
