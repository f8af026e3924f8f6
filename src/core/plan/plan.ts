import * as z from 'zod';
import { entryId } from '@/core/library/entry';
import { between } from '@/core/quantity/bounds';

/** How much a plan holds. */
export const PLAN_LIMITS = { title: 120, tasks: 300 } as const;

const when = z.iso.datetime({ error: 'must be a date and time in ISO form' });
/** A day, as “2026-12-03”. */
const day = z.iso.date('must be a day, as 2026-12-03');
const taskId = z.string().min(1).max(200);
const hours = between(0, 1000, ' h');
const title = z
  .string()
  .trim()
  .min(1, 'must not be empty')
  .max(PLAN_LIMITS.title, `must be at most ${PLAN_LIMITS.title} characters long`);

export const ownTaskSchema = z.strictObject({
  id: entryId,
  title,
  hours,
  /** The sheet that it is about, if any. */
  sheet: entryId.optional(),
  /** Tasks that come before it. */
  after: z.array(taskId).max(50).default([]),
});

/**
 * What a person has decided about what is to be done. Everything else of the plan follows from sheets,
 * their boards and the drawer.
 */
export const planSchema = z.strictObject({
  /**
   * Boards that are wanted by sheet, beside those that it had when they were put on the plan: who
   * begins one at the bench has one less to begin, and who takes it away again one more.
   */
  wanted: z.record(
    entryId,
    z.strictObject({
      boards: z.int().min(1).max(1000),
      had: z.int().min(0).max(1000),
      at: when,
    }),
  ),
  /** Sizes that were changed, by task. */
  hours: z.record(taskId, hours),
  /** What a task waits for that is no task: a board in the post, a borrowed meter. */
  waits: z.record(taskId, z.strictObject({ for: title, until: day.nullable() })),
  own: z.array(ownTaskSchema).max(PLAN_LIMITS.tasks, `holds at most ${PLAN_LIMITS.tasks} tasks`),
  /** What was done of tasks that nothing else tells it of, and when. */
  done: z.record(taskId, when),
  /** Parts that are ordered and not here yet, by what they are. */
  ordered: z.record(
    z.string().max(200),
    z.strictObject({ pieces: z.int().min(1).max(1_000_000), until: day.nullable() }),
  ),
});
export type Plan = z.infer<typeof planSchema>;
export type OwnTask = z.infer<typeof ownTaskSchema>;

export const EMPTY_PLAN: Plan = {
  wanted: {},
  hours: {},
  waits: {},
  own: [],
  done: {},
  ordered: {},
};

/** What can be read of a plan that was stored elsewhere; each field that cannot be is as if new. */
export function readPlan(stored: unknown): Plan {
  if (typeof stored !== 'object' || stored === null) return EMPTY_PLAN;
  const fields = stored as Record<string, unknown>;
  const read = <K extends keyof Plan>(name: K): Plan[K] => {
    const { success, data } = planSchema.shape[name].safeParse(fields[name]);
    return success ? (data as Plan[K]) : EMPTY_PLAN[name];
  };
  return {
    wanted: read('wanted'),
    hours: read('hours'),
    waits: read('waits'),
    own: read('own'),
    done: read('done'),
    ordered: read('ordered'),
  };
}

/** Two plans as one: what both speak of is as the second has it. */
export const joined = (one: Plan, other: Plan): Plan => ({
  wanted: { ...one.wanted, ...other.wanted },
  hours: { ...one.hours, ...other.hours },
  waits: { ...one.waits, ...other.waits },
  own: [...one.own.filter((o) => !other.own.some((p) => p.id === o.id)), ...other.own].slice(
    0,
    PLAN_LIMITS.tasks,
  ),
  done: { ...one.done, ...other.done },
  ordered: { ...one.ordered, ...other.ordered },
});
