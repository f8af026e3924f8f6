import { partKindOf } from '@/core/parts';
import { mainQuantity, printPart } from '@/core/parts/quantities';
import type { SheetDesign } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { quoted } from '@/core/text';
import type { Change } from './change';
import { leafWords, leavesBetween, pathWords, without } from './leaves';
import { entryName, partNamesOf, type NamesOfEntries } from './names';

type Board = SheetDesign['boards'][number];

/** What two designs differ in, in the boards that are built of them. */
export function boardChanges(
  before: SheetDesign,
  after: SheetDesign,
  entries: NamesOfEntries,
): Change[] {
  if (before.boards === after.boards) return [];
  const was = new Map(before.boards.map((b) => [b.id, b]));
  const is = new Map(after.boards.map((b) => [b.id, b]));
  const changes: Change[] = [];
  for (const [id, board] of was)
    if (!is.has(id)) changes.push({ kind: 'board', what: called(board), before: '', after: null });
  for (const [id, board] of is) {
    const old = was.get(id);
    if (!old) changes.push({ kind: 'board', what: called(board), before: null, after: '' });
    if (old === board) continue;
    changes.push(...betweenBoards(old ?? bare(board), board, after, entries));
  }
  return changes;
}

const called = ({ name, id }: Board): string => `Board ${quoted(name || id)}`;

/** A board that nothing was done with. */
const bare = ({ id, name }: Board): Board => ({ id, name, values: {}, takes: [], note: '' });

function betweenBoards(
  old: Board,
  now: Board,
  design: SheetDesign,
  entries: NamesOfEntries,
): Change[] {
  const board = called(now);
  const changes: Change[] = [];
  if (!old.took !== !now.took)
    changes.push({ kind: 'board', what: board, before: built(old), after: built(now) });
  for (const id of old.takes)
    if (!now.takes.includes(id))
      changes.push({
        kind: 'take',
        what: `${board}: take`,
        before: takeName(entries, id),
        after: null,
      });
  for (const id of now.takes)
    if (!old.takes.includes(id))
      changes.push({
        kind: 'take',
        what: `${board}: take`,
        before: null,
        after: takeName(entries, id),
      });
  const print = valuePrinter(design);
  for (const key of new Set([...Object.keys(old.values), ...Object.keys(now.values)]))
    if (old.values[key] !== now.values[key]) {
      const { name, words } = print(key);
      changes.push({
        kind: 'board',
        what: `${board}: ${name}`,
        before: words(old.values[key]) ?? 'as on the sheet',
        after: words(now.values[key]) ?? 'as on the sheet',
      });
    }
  const [done, doneNow] = [old.done?.length ?? 0, now.done?.length ?? 0];
  if (JSON.stringify(old.done) !== JSON.stringify(now.done))
    changes.push({
      kind: 'board',
      what: `${board}: steps done`,
      before: String(done),
      after: done === doneNow ? `${doneNow}, other ones` : String(doneNow),
    });
  const named = ['values', 'takes', 'done', 'took', 'id', 'together'];
  for (const leaf of leavesBetween(without(old, named), without(now, named)))
    changes.push({
      kind: 'board',
      what: `${board}: ${leaf.path[0] === 'reads' ? `read at ${leaf.path.slice(1).join(' ')}` : pathWords(leaf.path)}`,
      ...leafWords(leaf),
    });
  const [together, togetherNow] = [old, now].map((b) =>
    (b.together ?? []).map((id) => takeName(entries, id)).join(', '),
  );
  if (together !== togetherNow)
    changes.push({
      kind: 'take',
      what: `${board}: takes weighed together`,
      before: together || 'none',
      after: togetherNow || 'none',
    });
  return changes;
}

const takeName = (entries: NamesOfEntries, id: string): string =>
  quoted(entryName(entries, 'takes', id));

function built({ took }: Board): string {
  if (!took) return 'not built';
  const pieces = Object.values(took).reduce((sum, n) => sum + n, 0);
  return pieces === 0 ? 'built' : `built, ${pieces} parts out of the drawer`;
}

/** How the values of a board are called and printed, by the keys that they are stored under. */
function valuePrinter(design: SheetDesign) {
  const nameOf = partNamesOf(design);
  const found = new Map<string, { name: string; kind: string }>(
    design.ways.flatMap((way) =>
      way.stages.flatMap((stage) =>
        drawnParts(stage).map(
          ({ id, kind }) =>
            [`${way.id}/${stage.id}/${id}`, { name: nameOf(way, stage, id), kind }] as const,
        ),
      ),
    ),
  );
  return (key: string) => {
    const { name, kind } = found.get(key) ?? { name: key, kind: undefined };
    const quantity = kind === undefined ? undefined : mainQuantity(partKindOf(kind));
    return {
      name,
      words: (value: number | undefined) =>
        value === undefined ? undefined : quantity ? printPart(quantity, value) : String(value),
    };
  };
}
