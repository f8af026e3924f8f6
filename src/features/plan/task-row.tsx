import { Button, Checkbox, Input, InputNumber } from 'antd';
import { Hourglass, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { PlannedTask, Task } from '@/core/plan/task';
import { ownId, WANTED } from '@/core/plan/tasks';
import { dropTask, letWait, sizeTask, tickTask, usePlan } from '@/store/plan';
import { FormPopover } from '../shell/form-popover';
import { sheetAddress } from '../shell/sheet-address';
import { attempt, tell } from '../shell/tell';
import { waitWords } from './words';
import styles from './plan.module.css';

interface TaskRowProps {
  task: PlannedTask;
  all: readonly PlannedTask[];
  /** Of its sheet. */
  title: string | undefined;
}

/** A task: ticked where nothing else tells that it is done, with its size and what it waits for. */
export function TaskRow({ task, all, title }: TaskRowProps) {
  const own = usePlan((p) => p.own.find((o) => ownId(o.id) === task.id));
  const waits = waitWords(task, all);
  const done = () => {
    if (!attempt(() => tickTask(task.id, new Date().toISOString()))) return;
    tell(
      <>
        Done: {task.title}{' '}
        <Button size="small" type="text" onClick={() => attempt(() => tickTask(task.id, null))}>
          Not yet
        </Button>
      </>,
      { seconds: 8 },
    );
  };
  return (
    <li className={styles.task}>
      {isTicked(task) ? (
        <Checkbox checked={false} onChange={done} aria-label={`Done: ${task.title}`} />
      ) : (
        <span className={styles.box} aria-hidden />
      )}
      <div className={styles.what}>
        <span className={styles.title}>{task.title}</span>
        {title !== undefined && (
          <Link href={sheetAddress(task.sheet)} className={styles.sheet}>
            {title}
          </Link>
        )}
        {waits !== '' && <span className={styles.waits}>after: {waits}</span>}
      </div>
      <Doing task={task} />
      {own && (
        <Button
          type="text"
          size="small"
          icon={<Trash2 size={14} />}
          aria-label={`Take ${task.title} off the plan`}
          onClick={() => attempt(() => dropTask(own.id))}
        />
      )}
      <WaitButton task={task} />
      <InputNumber<number>
        size="small"
        className={task.usual ? `${styles.hours} ${styles.usual}` : styles.hours}
        aria-label={`Hours for ${task.title}${title === undefined ? '' : ` of ${title}`}`}
        min={0}
        max={1000}
        step={0.25}
        value={task.hours}
        suffix="h"
        controls={false}
        onChange={(value) => attempt(() => sizeTask(task.id, value))}
      />
    </li>
  );
}

/** Boards that are only wanted are ticked by building them at the bench; parts by ordering them. */
const isTicked = ({ id, kind, sheet }: Task): boolean =>
  kind === 'own' || (kind !== 'order' && !id.endsWith(` ${sheet} ${WANTED}`));

/** Where a task is done. */
function Doing({ task: { kind, sheet } }: { task: Task }) {
  if (kind === 'build' || kind === 'measure')
    return (
      <span className={styles.doing}>
        {kind === 'build' && <Link href={sheetAddress(sheet, 'parts')}>Parts</Link>}
        <Link href={sheetAddress(sheet, 'bench')}>Bench</Link>
      </span>
    );
  return null;
}

/** What a task waits for that is no task of the plan: told, and taken back. */
function WaitButton({ task }: { task: Task }) {
  const [open, setOpen] = useState(false);
  const wait = usePlan((p) => p.waits[task.id]) as
    ReturnType<typeof usePlan.getState>['waits'][string] | undefined;
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={<WaitForm task={task} now={wait} onDone={() => setOpen(false)} />}
    >
      <Button
        type="text"
        size="small"
        icon={<Hourglass size={14} />}
        aria-label={`What ${task.title} waits for`}
        title="Waits for …"
      />
    </FormPopover>
  );
}

function WaitForm({
  task,
  now,
  onDone,
}: {
  task: Task;
  now: { for: string; until: string | null } | undefined;
  onDone: () => void;
}) {
  const [what, setWhat] = useState(now?.for ?? '');
  const [until, setUntil] = useState(now?.until ?? '');
  const store = (wait: { for: string; until: string | null } | null) => {
    if (attempt(() => letWait(task.id, wait))) onDone();
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        store({ for: what, until: until === '' ? null : until });
      }}
    >
      <label>
        Waits for
        <Input
          value={what}
          maxLength={120}
          placeholder="the board in the post"
          onChange={(e) => setWhat(e.target.value)}
        />
      </label>
      <label>
        Here by, if known
        <Input type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
      </label>
      <span className={styles.buttons}>
        <Button type="primary" size="small" htmlType="submit" disabled={what.trim() === ''}>
          Let it wait
        </Button>
        {now && (
          <Button size="small" onClick={() => store(null)}>
            It is here
          </Button>
        )}
      </span>
    </form>
  );
}
