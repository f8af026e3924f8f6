import type { Sheet } from '@/core/sheet/schema';
import type { Plan } from './plan';
import type { Shortage } from './shortages';
import type { Task, TaskKind, Wait } from './task';

/** A board that stands at the bench, as far as a plan needs to know it. */
export interface BoardState {
  id: string;
  name: string;
  /** Whether it is soldered, and whether anything was measured of it. */
  built: boolean;
  measured: boolean;
  /** Steps of building it that are ticked. */
  steps: number;
}

/** How far a board has come: parts counted off the drawer, or anything measured of it, make it a built one. */
export function stateOfBoard(board: Sheet['boards'][number]): BoardState {
  const { id, name, took, takes, reads, done } = board;
  const measured = takes.length > 0 || Object.keys(reads ?? {}).length > 0;
  return { id, name, built: took !== undefined || measured, measured, steps: done?.length ?? 0 };
}

/** A sheet that something is to be done about. */
export interface PlannedSheet {
  id: string;
  title: string;
  boards: readonly BoardState[];
  /** Pieces on a board; nothing while that is being worked out. */
  parts: number | null;
}

/*
 * Usual sizes, in hours: rules of thumb of ours, to be changed by whoever knows better. A board takes a
 * while to lay out the bench and look it over, and a few minutes a part to find, bend, solder and check.
 */
const BUILD_HOURS = 0.5;
const HOURS_A_PART = 0.05;
const MEASURE_HOURS = 0.5;
const ORDER_HOURS = 0.5;
/** Where nobody has counted yet. */
const USUAL_PARTS = 20;

export const ORDER = 'order';
/** Stands where a board that is only wanted has no id yet. */
export const WANTED = '+';
export const buildId = (sheet: string, board: string): string => `build ${sheet} ${board}`;
export const measureId = (sheet: string, board: string): string => `measure ${sheet} ${board}`;
export const ownId = (id: string): string => `own ${id}`;

const quarter = (hours: number) => Math.round(4 * hours) / 4;

/** How many boards of a sheet are to be built: those at the bench that are not, and those wanted. */
export const boardsToBuild = (sheet: PlannedSheet, plan: Plan): number =>
  sheet.boards.filter((b) => !isBuilt(sheet.id, b, plan)).length + leftToBegin(sheet, plan);

/** How many of the wanted boards are not at the bench yet. */
export function leftToBegin(
  { id, boards }: Pick<PlannedSheet, 'id' | 'boards'>,
  plan: Plan,
): number {
  const wanted = plan.wanted[id] as Plan['wanted'][string] | undefined;
  return wanted ? Math.max(0, wanted.boards - Math.max(0, boards.length - wanted.had)) : 0;
}

const isBuilt = (sheet: string, board: BoardState, plan: Plan): boolean =>
  board.built || board.measured || plan.done[buildId(sheet, board.id)] !== undefined;

/**
 * Everything that is to be done.
 *
 * @param sheets those with boards or wanted ones, in the order in which they take from the drawer
 * @param lacking what the drawer does not have for them; nothing while that is being worked out
 */
export function tasksOf(
  sheets: readonly PlannedSheet[],
  plan: Plan,
  lacking: readonly Shortage[] | null,
): Task[] {
  const tasks: Task[] = [];
  const add = (
    id: string,
    kind: TaskKind,
    title: string,
    size: { usual: number } | { said: number },
    waits: Wait[],
    sheet = '',
  ) => {
    const changed = plan.hours[id] as number | undefined;
    const own = 'said' in size ? size.said : quarter(size.usual);
    const outside = plan.waits[id] as Plan['waits'][string] | undefined;
    tasks.push({
      id,
      kind,
      title,
      sheet,
      hours: changed ?? own,
      usual: changed === undefined && 'usual' in size,
      waits: outside ? [...waits, { is: 'world', what: outside.for, until: outside.until }] : waits,
    });
  };
  const toOrder = (lacking ?? []).filter((s) => isToOrder(s, plan));
  if (toOrder.length > 0) {
    const pieces = toOrder.reduce((sum, s) => sum + stillToOrder(s, plan), 0);
    const what = pieces === 1 ? 'a part' : `${pieces} parts of ${kinds(toOrder.length)}`;
    add(ORDER, 'order', `Order ${what}`, { usual: ORDER_HOURS }, []);
  }
  for (const sheet of sheets) {
    const parts = sheet.parts ?? USUAL_PARTS;
    const waits = partsWaits(sheet.id, plan, lacking ?? []);
    const boardHours = BUILD_HOURS + HOURS_A_PART * parts;
    const build = (id: string, title: string) =>
      add(id, 'build', title, { usual: boardHours }, waits, sheet.id);
    for (const board of sheet.boards) {
      const building = buildId(sheet.id, board.id);
      const measuring = measureId(sheet.id, board.id);
      const built = isBuilt(sheet.id, board, plan);
      const name = board.name || board.id;
      if (!built) build(building, board.steps > 0 ? `Go on building ${name}` : `Build ${name}`);
      if (!board.measured && plan.done[measuring] === undefined)
        add(
          measuring,
          'measure',
          `Measure ${name}`,
          { usual: MEASURE_HOURS },
          built ? [] : [{ is: 'task', id: building }],
          sheet.id,
        );
    }
    const wanted = leftToBegin(sheet, plan);
    if (wanted > 0) {
      const id = buildId(sheet.id, WANTED);
      add(
        id,
        'build',
        wanted === 1 ? 'Build a board' : `Build ${wanted} boards`,
        { usual: wanted * boardHours },
        waits,
        sheet.id,
      );
      const measure = measureId(sheet.id, WANTED);
      const title = wanted === 1 ? 'Measure it' : 'Measure them';
      const size = { usual: wanted * MEASURE_HOURS };
      add(measure, 'measure', title, size, [{ is: 'task', id }], sheet.id);
    }
  }
  const there = new Set([...tasks.map((t) => t.id), ...plan.own.map((o) => ownId(o.id))]);
  for (const { id, title, hours, sheet, after } of plan.own)
    if (plan.done[ownId(id)] === undefined)
      add(
        ownId(id),
        'own',
        title,
        { said: hours },
        // What is done, or gone, is no longer waited for.
        after
          .filter((t) => there.has(t) && plan.done[t] === undefined)
          .map((t): Wait => ({ is: 'task', id: t })),
        sheet,
      );
  return tasks;
}

const kinds = (n: number) => (n === 1 ? 'one kind' : `${n} kinds`);

const orderedOf = ({ key }: Shortage, plan: Plan): number => plan.ordered[key]?.pieces ?? 0;

/** Pieces that are lacking and not ordered. */
export const stillToOrder = (shortage: Shortage, plan: Plan): number =>
  Math.max(0, shortage.pieces - orderedOf(shortage, plan));

const isToOrder = (shortage: Shortage, plan: Plan): boolean => stillToOrder(shortage, plan) > 0;

/** What a sheet waits for before its boards can be built. */
function partsWaits(sheet: string, plan: Plan, lacking: readonly Shortage[]): Wait[] {
  const own = lacking.filter((s) => s.lackedBy.some((l) => l.sheet === sheet));
  const [toOrder, coming] = [true, false].map((is) => own.filter((s) => isToOrder(s, plan) === is));
  const days = coming.map((s) => plan.ordered[s.key].until);
  const until = days.includes(null) ? null : (days.sort().at(-1) ?? null);
  return [
    ...(toOrder.length > 0 ? [{ is: 'task' as const, id: ORDER }] : []),
    ...(coming.length > 0
      ? [{ is: 'world' as const, what: `${kinds(coming.length)} of parts on the way`, until }]
      : []),
  ];
}
