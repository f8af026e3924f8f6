'use client';

import { Button } from 'antd';
import { CircleCheck } from 'lucide-react';
import { useCallback } from 'react';
import { CHAPTER_NAMES, LESSONS, lessonsOf, type Lesson } from '@/core/lessons';
import { learned } from '@/store/lesson-sheets';
import { useLessons } from '@/store/lessons';
import { useLiveQuery } from '@/store/live';
import { dateWords } from '@/ui/controls/date-words';
import { Screen } from '../shell/screen';
import { useBegin } from './use-begin';
import styles from './lessons.module.css';

/** A shelf of short lessons: each a question on a live sheet that answers it. */
export function LessonsScreen() {
  const passed = useLiveQuery(useCallback(() => learned(), []));
  const next = passed && LESSONS.find((l) => !passed.has(l.id));
  return (
    <Screen
      title="Lessons"
      beside={
        <p role="status">
          {passed &&
            `${LESSONS.filter((l) => passed.has(l.id)).length} of ${LESSONS.length} passed`}
        </p>
      }
    >
      <div className={styles.chapters}>
        {CHAPTER_NAMES.map(([chapter, name]) => (
          <section key={chapter} aria-label={name} className={styles.chapter}>
            <h2>{name}</h2>
            <ul>
              {lessonsOf(chapter).map((lesson) => (
                <LessonCard
                  key={lesson.id}
                  lesson={lesson}
                  passedAt={passed?.get(lesson.id)}
                  isNext={lesson === next}
                />
              ))}
            </ul>
          </section>
        ))}
      </div>
    </Screen>
  );
}

function LessonCard({
  lesson: { id, title, question },
  passedAt,
  isNext,
}: {
  lesson: Lesson;
  passedAt: string | undefined;
  isNext: boolean;
}) {
  const begin = useBegin();
  const begun = useLessons((s) => id in s.sheets);
  return (
    <li className={isNext ? `${styles.card} ${styles.next}` : styles.card}>
      <h3>
        {title}
        {passedAt !== undefined && (
          <CircleCheck
            size={15}
            className={styles.passed}
            aria-label={`Passed ${dateWords(passedAt, 'short')}`}
          />
        )}
      </h3>
      <p>{question}</p>
      <Button
        size="small"
        type={isNext ? 'primary' : 'default'}
        aria-label={`${verb(begun, passedAt)}: ${title}`}
        onClick={() => begin(id)}
      >
        {verb(begun, passedAt)}
      </Button>
    </li>
  );
}

const verb = (begun: boolean, passedAt: string | undefined): string =>
  passedAt !== undefined ? 'Look again' : begun ? 'Go on' : 'Begin';
