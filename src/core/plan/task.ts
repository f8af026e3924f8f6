/** What is to be done. */
export const TASK_KINDS = ['order', 'build', 'measure', 'own'] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

/** Something that a task waits for: another task, or the world. */
export type Wait =
  | { is: 'task'; id: string }
  /** Until a day, “2026-12-03”, where one is known. */
  | { is: 'world'; what: string; until: string | null };

export interface Task {
  id: string;
  kind: TaskKind;
  title: string;
  /** Empty for none. */
  sheet: string;
  hours: number;
  /** Whether the size is what is usual, and not what the person said. */
  usual: boolean;
  waits: Wait[];
}

/** When a task can be begun: now, when others are done, or when the world lets it. */
export type Standing = 'now' | 'after' | 'waiting';

export interface PlannedTask extends Task {
  standing: Standing;
}
