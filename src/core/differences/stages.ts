import type { DrawnPart } from '@/core/drawing/nets';
import { partKindOf } from '@/core/parts';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import type { SheetDesign, Stage, StagePart, Way } from '@/core/sheet/schema';
import { drawingOf, drawnParts, stageName } from '@/core/sheet/stage';
import type { Change } from './change';
import { leafWords, leavesBetween, pathWords, without } from './leaves';
import { entryName, partNamesOf, type NamesOfEntries } from './names';
import { partWords } from './part-words';

/** A stage where it stands. */
interface Placed {
  way: Way;
  stage: Stage;
  place: number;
}

function placed(design: SheetDesign): Map<string, Placed> {
  return new Map(
    design.ways.flatMap((way) =>
      way.stages.map((stage, place) => [`${way.id}/${stage.id}`, { way, stage, place }] as const),
    ),
  );
}

/** What two designs differ in, in their stages and the parts of those. */
export function stageChanges(
  before: SheetDesign,
  after: SheetDesign,
  entries: NamesOfEntries,
): Change[] {
  const [was, is] = [placed(before), placed(after)];
  const [nameBefore, nameAfter] = [partNamesOf(before), partNamesOf(after)];
  const several = Math.max(before.ways.length, after.ways.length) > 1;
  const called = ({ way, stage, place }: Placed) =>
    `${several ? `${way.name || way.id}, ` : ''}stage ${place + 1} (${stageName(stage)})`;
  const changes: Change[] = [];
  for (const [key, old] of was)
    if (!is.has(key))
      changes.push({ kind: 'path', what: called(old), before: partsOf(old.stage), after: null });
  for (const [key, now] of is) {
    const old = was.get(key);
    if (!old)
      changes.push({ kind: 'path', what: called(now), before: null, after: partsOf(now.stage) });
    else if (old.stage !== now.stage)
      changes.push(
        ...betweenStages(old.stage, now.stage, called(now), entries, {
          before: (part) => nameBefore(old.way, old.stage, part),
          after: (part) => nameAfter(now.way, now.stage, part),
        }),
      );
  }
  return [...changes, ...orders(before, after)];
}

/** The parts of a stage that comes or goes, with their values. */
function partsOf(stage: Stage): string {
  return drawnParts(stage)
    .map(({ id, kind }) => `${id} ${partWords(kind, stage.parts[id])}`.trim())
    .join(', ');
}

/** Stages that stand in another order than before. */
function orders(before: SheetDesign, after: SheetDesign): Change[] {
  return after.ways.flatMap((way): Change[] => {
    const old = before.ways.find((w) => w.id === way.id);
    if (!old || old.stages === way.stages) return [];
    const both = new Set(old.stages.map((s) => s.id));
    const common = (w: Way, has: (id: string) => boolean) =>
      w.stages.filter((s) => has(s.id)).map(stageName);
    const ids = (w: Way, has: (id: string) => boolean) =>
      w.stages.flatMap((s) => (has(s.id) ? [s.id] : [])).join(' ');
    const there = new Set(way.stages.map((s) => s.id));
    if (ids(old, (id) => there.has(id)) === ids(way, (id) => both.has(id))) return [];
    return [
      {
        kind: 'path',
        what: `Order of stages${before.ways.length > 1 ? ` of ${way.name || way.id}` : ''}`,
        before: common(old, (id) => there.has(id)).join(', '),
        after: common(way, (id) => both.has(id)).join(', '),
      },
    ];
  });
}

type NameOf = (part: string) => string;

function betweenStages(
  old: Stage,
  now: Stage,
  called: string,
  entries: NamesOfEntries,
  name: { before: NameOf; after: NameOf },
): Change[] {
  const changes: Change[] = [];
  const [was, is] = [drawnParts(old), drawnParts(now)].map(
    (parts) => new Map(parts.map((p) => [p.id, p])),
  );
  for (const [id, part] of was)
    if (!is.has(id))
      changes.push({
        kind: 'part',
        what: name.before(id),
        before: described(part, old.parts[id]),
        after: null,
      });
  for (const [id, part] of is) {
    const there = was.get(id);
    const what = name.after(id);
    if (!there)
      changes.push({ kind: 'part', what, before: null, after: described(part, now.parts[id]) });
    else if (there.kind !== part.kind)
      changes.push({
        kind: 'part',
        what,
        before: described(there, old.parts[id]),
        after: described(part, now.parts[id]),
      });
    else if (old.parts[id] !== now.parts[id])
      changes.push(...betweenParts(part.kind, old.parts[id], now.parts[id], what, entries));
  }
  if (changes.every((c) => c.kind !== 'part') && old.drawing !== now.drawing)
    changes.push(...drawn(old, now, called));
  return [...changes, ...otherwise(old, now, called)];
}

const described = (part: DrawnPart, data: StagePart | undefined): string =>
  [partWords(part.kind, data), partKindOf(part.kind).noun].filter(Boolean).join(' ');

function betweenParts(
  kind: string,
  old: StagePart | undefined,
  now: StagePart | undefined,
  what: string,
  entries: NamesOfEntries,
): Change[] {
  const changes: Change[] = [];
  const [before, after] = [partWords(kind, old), partWords(kind, now)];
  const sameValue = old?.value === now?.value && same(old?.made, now?.made);
  if (before !== after || !sameValue) {
    const exact = before === after;
    changes.push({
      kind: 'value',
      what,
      before: exact ? String(old?.value) : before,
      after: exact ? String(now?.value) : after,
    });
  }
  const rest = ({ chosen, stock, ...part }: Partial<StagePart> = {}) => ({
    ...without(part, ['value', 'made']),
    // Who chose a value says little beside what it was changed to.
    ...(changes.length > 0 ? {} : { chosenBy: chosen }),
    ...(stock === undefined ? {} : { fromDrawer: entryName(entries, 'drawer', stock) }),
  });
  for (const leaf of leavesBetween(rest(old), rest(now)))
    changes.push({
      kind: 'value',
      what: `${what}, ${pathWords(leaf.path)}`,
      ...leafWords(leaf),
    });
  return changes;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A drawing of the same parts that is another: wired otherwise, or only laid out otherwise. */
function drawn(old: Stage, now: Stage, called: string): Change[] {
  const [a, b] = [drawingOf(old), drawingOf(now)];
  if (same(a, b)) return [];
  const wired = (stage: Stage) => {
    const { parts } = netsOfDrawing(drawingOf(stage));
    return new Map(parts.map((p) => [p.id, Object.entries(p.nets)]));
  };
  const [was, is] = [wired(old), wired(now)];
  const moved = [...is].flatMap(([id, pins]) => (same(was.get(id), pins) ? [] : [id]));
  return moved.length > 0
    ? [
        {
          kind: 'part',
          what: `Wiring of ${called}`,
          before: 'as it was',
          after: `${moved.join(', ')} joined otherwise`,
        },
      ]
    : [
        {
          kind: 'layout',
          what: `Drawing of ${called}`,
          before: 'as it was',
          after: 'laid out otherwise',
        },
      ];
}

/** Everything else that is said of a stage. */
function otherwise(old: Stage, now: Stage, called: string): Change[] {
  const rest = (stage: Stage) => without(stage, ['parts', 'drawing']);
  return leavesBetween(rest(old), rest(now)).map((leaf) => ({
    kind: leaf.path[0] === 'bypassed' || leaf.path[0] === 'topology' ? 'path' : 'value',
    what: `${called}: ${pathWords(leaf.path)}`,
    ...leafWords(leaf),
  }));
}
