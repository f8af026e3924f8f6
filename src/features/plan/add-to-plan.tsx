import { Button, Input, InputNumber, Select } from 'antd';
import { ListPlus, Plus } from 'lucide-react';
import { useState } from 'react';
import type { PlannedTask } from '@/core/plan/task';
import { leftToBegin } from '@/core/plan/tasks';
import type { Card } from '@/store/card';
import { addTask, usePlan, wantBoards } from '@/store/plan';
import { FormPopover } from '../shell/form-popover';
import { attempt } from '../shell/tell';
import styles from './plan.module.css';

/** Puts boards of a sheet on the plan, or takes them off. */
export function AddSheet({ cards }: { cards: readonly Card[] }) {
  const [open, setOpen] = useState(false);
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={<SheetForm cards={cards} onDone={() => setOpen(false)} />}
    >
      <Button icon={<ListPlus size={15} />}>Boards to build</Button>
    </FormPopover>
  );
}

function SheetForm({ cards, onDone }: { cards: readonly Card[]; onDone: () => void }) {
  const plan = usePlan();
  const [sheet, setSheet] = useState<string | null>(null);
  const [boards, setBoards] = useState(1);
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        const had = cards.find((c) => c.id === sheet)?.boards?.length ?? 0;
        if (sheet !== null && attempt(() => wantBoards(sheet, boards, had))) onDone();
      }}
    >
      <label>
        Sheet
        <Select<string>
          aria-label="Sheet"
          showSearch={{ optionFilterProp: 'label' }}
          notFoundContent="No sheet is called so."
          value={sheet}
          options={cards
            .filter((c) => c.problem === undefined)
            .map((c) => ({ value: c.id, label: c.title }))}
          onChange={(id) => {
            setSheet(id);
            const { boards: own = [] } = cards.find((c) => c.id === id) ?? {};
            setBoards(leftToBegin({ id, boards: own }, plan) || 1);
          }}
        />
      </label>
      <label>
        Boards, beside those at the bench
        <InputNumber<number>
          aria-label="Boards, beside those at the bench"
          min={0}
          max={1000}
          precision={0}
          value={boards}
          onChange={(value) => setBoards(value ?? 0)}
        />
      </label>
      <span className={styles.buttons}>
        <Button type="primary" size="small" htmlType="submit" disabled={sheet === null}>
          {boards === 0 ? 'Take it off the plan' : 'Put it on the plan'}
        </Button>
      </span>
    </form>
  );
}

/** A task of the person’s own. */
export function AddTask({
  tasks,
  cards,
}: {
  tasks: readonly PlannedTask[];
  cards: readonly Card[];
}) {
  const [open, setOpen] = useState(false);
  return (
    <FormPopover
      open={open}
      onOpenChange={setOpen}
      content={<TaskForm tasks={tasks} cards={cards} onDone={() => setOpen(false)} />}
    >
      <Button icon={<Plus size={15} />}>Task</Button>
    </FormPopover>
  );
}

function TaskForm({
  tasks,
  cards,
  onDone,
}: {
  tasks: readonly PlannedTask[];
  cards: readonly Card[];
  onDone: () => void;
}) {
  const [title, setTitle] = useState('');
  const [hours, setHours] = useState(1);
  const [sheet, setSheet] = useState<string | undefined>(undefined);
  const [after, setAfter] = useState<string[]>([]);
  const titles = new Map(cards.map((c) => [c.id, c.title]));
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        const task = { title, hours, after, ...(sheet === undefined ? {} : { sheet }) };
        if (attempt(() => addTask(task))) onDone();
      }}
    >
      <label>
        What is to be done
        <Input
          value={title}
          maxLength={120}
          placeholder="drill the front of the case"
          onChange={(e) => setTitle(e.target.value)}
        />
      </label>
      <label>
        Hours
        <InputNumber<number>
          aria-label="Hours"
          min={0}
          max={1000}
          step={0.25}
          value={hours}
          onChange={(value) => setHours(value ?? 0)}
        />
      </label>
      <label>
        Of the sheet
        <Select<string>
          aria-label="Of the sheet"
          allowClear
          showSearch={{ optionFilterProp: 'label' }}
          notFoundContent="No sheet is called so."
          value={sheet}
          options={cards.map((c) => ({ value: c.id, label: c.title }))}
          onChange={setSheet}
        />
      </label>
      <label>
        After
        <Select<string[]>
          aria-label="After"
          mode="multiple"
          value={after}
          options={tasks.map((t) => ({
            value: t.id,
            label: t.sheet === '' ? t.title : `${t.title}, ${titles.get(t.sheet) ?? ''}`,
          }))}
          onChange={setAfter}
        />
      </label>
      <span className={styles.buttons}>
        <Button type="primary" size="small" htmlType="submit" disabled={title.trim() === ''}>
          Put it on the plan
        </Button>
      </span>
    </form>
  );
}
