import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import {
  EMPTY_PLAN,
  planSchema,
  readPlan,
  PLAN_LIMITS,
  type OwnTask,
  type Plan,
} from '@/core/plan/plan';
import { ownId } from '@/core/plan/tasks';
import { ReedError } from '@/core/errors';
import { firstIssue } from '@/core/document/issue';
import { newId } from './ids';
import { followOtherTabs } from './other-tabs';

const KEY = 'jaunty-reed-plan';

/** What is to be done next; kept in this browser. */
export const usePlan = create<Plan>()(
  persist((): Plan => EMPTY_PLAN, {
    name: KEY,
    version: 1,
    merge: (stored, now) => ({ ...now, ...readPlan(stored) }),
  }),
);

followOtherTabs(usePlan, KEY);

/**
 * Change the plan.
 *
 * @throws ReedError `range` naming what is wrong with what it would become; it stays as it was
 */
export function changePlan(change: (plan: Plan) => Partial<Plan>): void {
  const plan = usePlan.getState();
  const next = { ...plan, ...change(plan) };
  const { success, data, error } = planSchema.safeParse(next);
  if (!success) {
    const { path, message } = firstIssue(error, next);
    throw new ReedError('range', `The plan stays as it was: “${path}” ${message}.`);
  }
  usePlan.setState(data);
}

const without = <T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record).filter(([k]) => k !== key));

const withOrWithout = <T>(record: Readonly<Record<string, T>>, key: string, value: T | null) =>
  value === null ? without(record, key) : { ...record, [key]: value };

/** How many boards of a sheet are wanted beside the ones that it has; none takes it off the plan. */
export const wantBoards = (sheet: string, boards: number, had: number): void =>
  changePlan(({ wanted }) => ({
    wanted: withOrWithout(
      wanted,
      sheet,
      boards > 0 ? { boards, had, at: wanted[sheet]?.at ?? new Date().toISOString() } : null,
    ),
  }));

/** How long a task takes; null for what is usual, or what was said first of one’s own. */
export const sizeTask = (task: string, size: number | null): void =>
  changePlan(({ hours }) => ({ hours: withOrWithout(hours, task, size) }));

/** What a task waits for beside other tasks; null for nothing. */
export const letWait = (task: string, wait: Plan['waits'][string] | null): void =>
  changePlan(({ waits }) => ({ waits: withOrWithout(waits, task, wait) }));

/** Tick a task, or take the tick back. */
export const tickTask = (task: string, at: string | null): void =>
  changePlan(({ done }) => ({ done: withOrWithout(done, task, at) }));

/** A task of the person’s own. */
export const addTask = (task: Omit<OwnTask, 'id'>): void =>
  changePlan(({ own }) => {
    if (own.length >= PLAN_LIMITS.tasks)
      throw new ReedError(
        'range',
        `The plan holds at most ${PLAN_LIMITS.tasks} tasks: take some off it first.`,
      );
    return { own: [...own, { ...task, id: newId() }] };
  });

/** Take an own task off the plan. */
export const dropTask = (id: string): void =>
  changePlan(({ own, hours, waits, done }) => ({
    own: own.filter((o) => o.id !== id),
    hours: without(hours, ownId(id)),
    waits: without(waits, ownId(id)),
    done: without(done, ownId(id)),
  }));

/** Parts are ordered, and here by a day where one is known; null where they are not on the way. */
export const markOrdered = (part: string, order: Plan['ordered'][string] | null): void =>
  changePlan(({ ordered }) => ({ ordered: withOrWithout(ordered, part, order) }));
