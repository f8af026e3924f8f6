import type { Change } from '@/core/differences/change';
import { cut } from '@/core/text';
import { BOOK_LIMITS, type BookEntry, type EntryKind, type Step } from './entry';

/*
 * How a change of a sheet becomes a line of the book, or part of one. What is gone back on is marked
 * and stays: the book tells what was tried.
 */

/** A change of a sheet that is being stored. */
export interface Event {
  id: () => string;
  at: string;
  sheet: string;
  /** What the sheet is called. */
  name: string;
  changes: readonly Change[];
  by?: string;
  /** Fingerprints of the sheet before and after. */
  from: string;
  to: string;
}

/** What became of an event. */
export interface Logged {
  /** Lines that are new or changed. */
  put: BookEntry[];
  /** The line in which the sheet now stands: what it comes to has to be told anew. */
  head: BookEntry | null;
  /** Whether the head is a new line. */
  begins: boolean;
}

/** Edits this long after the last one of a line begin another, milliseconds: an evening is one line. */
const PAUSE = 3 * 3600_000;
/** Steps that change the same things this soon after each other are one, milliseconds. */
const STROKE = 10_000;

/** What a step is told as. */
export function kindOfChanges(changes: readonly Change[]): EntryKind {
  const kinds = new Set(changes.map((c) => c.kind));
  return (['take', 'board', 'keep'] as const).find((kind) => kinds.has(kind)) ?? 'design';
}

/** Whether several steps make one line; of other kinds every one is worth a line of its own. */
export const gathers = (kind: EntryKind): boolean => kind === 'design' || kind === 'board';

/**
 * Write an event down.
 *
 * @param recent the last lines of the sheet, oldest first
 */
export function logged(recent: readonly BookEntry[], event: Event): Logged {
  const lines = recent.filter((e) => e.steps.length > 0);
  const gone = goneTo(lines, event);
  if (gone) return gone;
  const step = stepOf(event);
  const kind = kindOfChanges(event.changes);
  const last = lines.at(-1);
  if (last && last.kind === kind && gathers(kind) && goesOn(last, event)) {
    const steps = withStroke(last.steps, step);
    if (steps.length <= BOOK_LIMITS.steps) {
      const head = { ...last, name: event.name, until: event.at, steps };
      return { put: [head], head, begins: false };
    }
  }
  const head: BookEntry = {
    format: 'jaunty-reed/book-entry',
    version: 1,
    id: event.id(),
    name: event.name,
    kind,
    at: event.at,
    until: event.at,
    sheet: event.sheet,
    ...cutChanges(event.changes),
    steps: [step],
    note: '',
    pictures: [],
  };
  return { put: [head], head, begins: true };
}

/** As many changes as are written out, and how many there are besides. */
export function cutChanges(changes: readonly Change[]): Pick<BookEntry, 'changes' | 'more'> {
  const more = changes.length - BOOK_LIMITS.changes;
  const short = (text: string) =>
    text.length <= BOOK_LIMITS.words ? text : `${cut(text, BOOK_LIMITS.words - 1)}…`;
  return {
    changes: changes.slice(0, BOOK_LIMITS.changes).map(({ kind, what, before, after }) => ({
      kind,
      what: short(what),
      before: before === null ? null : short(before),
      after: after === null ? null : short(after),
    })),
    ...(more > 0 ? { more } : {}),
  };
}

const stepOf = ({ at, changes, by, from, to }: Event): Step => ({
  at,
  ...cutChanges(changes),
  ...(by === undefined ? {} : { by }),
  from,
  to,
});

/** Whether an event follows on what a line ends with, and soon enough. */
function goesOn({ steps, until }: BookEntry, { at, from }: Event): boolean {
  const standing = steps.findLast((s) => !s.undone)?.to ?? steps[0].from;
  return standing === from && Date.parse(at) - Date.parse(until) < PAUSE;
}

/** A further step, which is one with the last where it is the same stroke. */
function withStroke(steps: readonly Step[], step: Step): Step[] {
  const last = steps.at(-1)!;
  const of = ({ changes }: Step) => changes.map((c) => `${c.kind} ${c.what}`).join('\n');
  const same =
    !last.undone &&
    last.by === step.by &&
    last.more === undefined &&
    step.more === undefined &&
    Date.parse(step.at) - Date.parse(last.at) < STROKE &&
    of(last) === of(step);
  if (!same) return [...steps, step];
  const changes = step.changes.map((c, i) => ({ ...c, before: last.changes[i].before }));
  return [...steps.slice(0, -1), { ...step, changes, from: last.from }];
}

/**
 * An event that goes back to a state the lines know, or forth again over steps that were gone back
 * on: steps are marked, or their marks taken off. Nothing where it leads to a new state.
 */
function goneTo(lines: readonly BookEntry[], { from, to }: Event): Logged | null {
  const steps = lines.flatMap((entry) => entry.steps.map((step) => ({ entry, step })));
  const standing = steps.findLastIndex(({ step }) => !step.undone);
  const undone = new Map<Step, boolean>();
  if (standing >= 0 && steps[standing].step.to === from) {
    const back = steps.findLastIndex(
      ({ step }, i) => i <= standing && !step.undone && step.from === to,
    );
    if (back >= 0) for (const { step } of steps.slice(back, standing + 1)) undone.set(step, true);
  }
  if (undone.size === 0) {
    let reached = from;
    for (const { step } of steps.slice(standing + 1)) {
      if (reached === to || step.from !== reached) continue;
      reached = step.to;
      undone.set(step, false);
    }
    if (undone.size === 0 || reached !== to) return null;
  }
  const put = lines.flatMap((entry): BookEntry[] => {
    if (!entry.steps.some((s) => undone.has(s))) return [];
    return [{ ...entry, steps: entry.steps.map((s) => marked(s, undone.get(s))) }];
  });
  // The line in which the sheet stands now is the last that holds.
  const now = new Map([
    ...lines.map((e) => [e.id, e] as const),
    ...put.map((e) => [e.id, e] as const),
  ]);
  const head = [...now.values()].findLast((e) => e.steps.some((s) => !s.undone)) ?? null;
  return { put, head, begins: false };
}

function marked(step: Step, undone: boolean | undefined): Step {
  if (undone === undefined) return step;
  const bare = { ...step };
  delete bare.undone;
  return undone ? { ...bare, undone: true } : bare;
}
