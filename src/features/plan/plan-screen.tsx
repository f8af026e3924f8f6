'use client';

import { Button } from 'antd';
import { Printer } from 'lucide-react';
import type { PlannedTask, Standing } from '@/core/plan/task';
import { usePreferences } from '@/store/preferences';
import { Screen } from '../shell/screen';
import { AddTask, AddSheet } from './add-to-plan';
import { PartsToOrder } from './parts-to-order';
import { TaskRow } from './task-row';
import { usePlanTasks } from './use-plan-tasks';
import { hoursWords } from './words';
import styles from './plan.module.css';

const GROUPS: readonly (readonly [Standing, string])[] = [
  ['now', 'Can be begun now'],
  ['after', 'After that'],
  ['waiting', 'Waits for something'],
];

const hoursOf = (tasks: readonly PlannedTask[]) => tasks.reduce((sum, t) => sum + t.hours, 0);

/** What is to be done next, over all sheets: in the order of what waits for what. */
export function PlanScreen() {
  const mark = usePreferences((p) => p.mark);
  const { tasks, lacking, titles, cards, problems } = usePlanTasks();
  return (
    <Screen
      title="Plan"
      beside={
        <>
          <p role="status">
            {tasks &&
              (tasks.length === 0
                ? 'Nothing is to be done.'
                : `${hoursWords(hoursOf(tasks), mark)} in all, ${hoursWords(
                    hoursOf(tasks.filter((t) => t.standing === 'now')),
                    mark,
                  )} of it can be begun now`)}
          </p>
          <AddSheet cards={cards} />
          <AddTask tasks={tasks ?? []} cards={cards} />
          <Button icon={<Printer size={15} />} onClick={() => window.print()}>
            Print
          </Button>
        </>
      }
    >
      <div className={styles.columns}>
        <div className={styles.left}>
          {problems.map((problem) => (
            <p key={problem} role="alert" className={styles.bad}>
              Parts are not told of {problem}
            </p>
          ))}
          {tasks?.length === 0 && (
            <p className={styles.empty}>
              Put a sheet on the plan, or a task of your own. Boards at the bench that are not built
              or measured come here by themselves, and so does what the drawer lacks for them.
            </p>
          )}
          {GROUPS.map(([standing, title]) => (
            <TaskGroup
              key={standing}
              title={title}
              tasks={(tasks ?? []).filter((t) => t.standing === standing)}
              all={tasks ?? []}
              titles={titles}
            />
          ))}
        </div>
        <PartsToOrder lacking={lacking} />
      </div>
      <p className={styles.care}>
        Power off before a part is changed, and let capacitors empty; solder with a window open.
        Resistors and heat sinks of a board that works get hot. What mains is in is left to a
        qualified person.
      </p>
    </Screen>
  );
}

function TaskGroup({
  title,
  tasks,
  all,
  titles,
}: {
  title: string;
  tasks: readonly PlannedTask[];
  all: readonly PlannedTask[];
  titles: ReadonlyMap<string, string>;
}) {
  const mark = usePreferences((p) => p.mark);
  if (tasks.length === 0) return null;
  return (
    <section aria-label={title} className={styles.group}>
      <h2>
        {title}
        <span className={styles.soft}>{hoursWords(hoursOf(tasks), mark)}</span>
      </h2>
      <ul>
        {tasks.map((task) => (
          <TaskRow key={task.id} task={task} all={all} title={titles.get(task.sheet)} />
        ))}
      </ul>
    </section>
  );
}
