import { Button } from 'antd';
import { CircleCheck, Circle } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { LESSONS, type Goal, type Lesson } from '@/core/lessons';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { designedAs } from '@/core/sheet/stage';
import { wordsInPath } from '@/core/sheet/words-in-path';
import { logLesson } from '@/store/book';
import { learned } from '@/store/lesson-sheets';
import { useLiveQuery } from '@/store/live';
import { useSolvedSheet } from '@/store/open-library';
import { useJob } from '../bench/use-job';
import { Blocks } from '../sheet/block-diagram';
import { useGo } from '../shell/leave-guard';
import { attemptStored } from '../shell/tell';
import { useBegin } from './use-begin';
import styles from './lessons.module.css';

/** Beside the sheet of a lesson: the question, what to turn, what to see, and what the sheet answers. */
export function LessonPanel({ id, sheet }: { id: string; sheet: Sheet }) {
  const lesson = LESSONS.find((l) => l.id === id);
  // A newer version, whose archive was taken in, may have others.
  return lesson ? <Panel lesson={lesson} sheet={sheet} /> : null;
}

function Panel({ lesson, sheet: open }: { lesson: Lesson; sheet: Sheet }) {
  const { id } = lesson;
  const sheet = useSolvedSheet(open);
  const { parts, ways, source, ask, controls, crossover } = sheet;
  const input = useMemo(
    () => ({ lesson: id, sheet }),
    // Of the sheet only what its goals are read from.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [id, parts, ways, source, ask, controls, crossover],
  );
  const { result, problem } = useJob('lessonGoals', input);
  const passed = useLiveQuery(useCallback(() => learned(), []));
  const isPassed = passed?.has(id) === true;
  const met = result !== null && result.every((g) => g.met);
  // Said once it stands in the book: whoever leaves then has it there.
  const [written, setWritten] = useState<readonly Goal[] | null>(null);
  const isSaid = met && (isPassed || written === result);
  const wanted = useWanted(result);
  const own = useMemo(() => ownStage(lesson, ways[0].stages), [lesson, ways]);
  // A topology's words go by the names in its own drawing.
  const inWords = (words: string) =>
    lesson.topology === undefined ? words : wordsInPath(words, (part) => own?.names.get(part));
  useEffect(() => {
    if (!met || result === null) return;
    void attemptStored('That it was passed was not written into the book', () =>
      logLesson(lesson, result, open),
    ).then(() => setWritten(result));
    // The sheet as it was when it met them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [met, lesson, result]);
  return (
    <aside className={styles.panel} aria-label="Lesson">
      <h2>{lesson.title}</h2>
      <p className={styles.question}>{lesson.question}</p>
      {own && <LessonBlocks {...own} />}
      <h3>Turn</h3>
      <p>{inWords(lesson.turn)}</p>
      <h3>See</h3>
      <p>{inWords(lesson.see)}</p>
      <h3>The sheet answers</h3>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      <ul className={styles.goals}>
        {(result ?? wanted).map((goal) => (
          <li key={goal.what} className={result && goal.met ? styles.met : undefined}>
            {result && goal.met ? (
              <CircleCheck size={15} aria-label="met" />
            ) : (
              <Circle size={15} aria-label="not yet" />
            )}
            <span>
              {goal.what}
              <span className={styles.is}>{result ? goal.is : '…'}</span>
            </span>
          </li>
        ))}
      </ul>
      {(isSaid || isPassed) && (
        <section role="status" className={styles.because}>
          <h3>{met ? 'That is it' : 'Passed before'}</h3>
          <p>{inWords(lesson.because)}</p>
          <Next after={lesson} />
        </section>
      )}
    </aside>
  );
}

/** What is wanted stays in its place while it is being read anew. */
function useWanted(result: readonly Goal[] | null): readonly Goal[] {
  const [last, setLast] = useState<readonly Goal[]>([]);
  if (result !== null && result !== last) setLast(result);
  return last;
}

/** The stage that is still the circuit of the lesson, and what its parts are called. */
function ownStage(lesson: Lesson, stages: readonly Stage[]) {
  const stage = stages.find((s) => s.topology === lesson.topology && !s.drawing);
  return stage && { stage, names: partNames(stages).get(stage.id)! };
}

/** The signal flow of the circuit, each weight with its parts. */
function LessonBlocks({ stage, names }: { stage: Stage; names: ReadonlyMap<string, string> }) {
  const blocks = designedAs(stage)?.blocks;
  return blocks ? <Blocks blocks={blocks} stage={stage.id} names={names} /> : null;
}

/** The next one on the shelf, or this one again. */
function Next({ after }: { after: Lesson }) {
  const go = useGo();
  const next = LESSONS.at(LESSONS.indexOf(after) + 1);
  const begin = useBegin();
  return (
    <span className={styles.buttons}>
      {next && (
        <Button size="small" type="primary" onClick={() => begin(next.id)}>
          Next: {next.title}
        </Button>
      )}
      <Button size="small" onClick={() => begin(after.id, true)}>
        Begin anew
      </Button>
      <Button size="small" type="text" onClick={() => go('/lessons')}>
        All lessons
      </Button>
    </span>
  );
}
