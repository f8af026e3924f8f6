import type { Keep, SheetDesign, Way } from '@/core/sheet/schema';
import { hasTopology, topologyOf } from '@/core/topologies';
import { quoted } from '@/core/text';
import { boardChanges } from './boards';
import type { Change, ChangeKind } from './change';
import { leafWords, leavesBetween, pathWords, without } from './leaves';
import { entryName, type NamesOfEntries } from './names';
import { readingChanges } from './readings';
import { stageChanges } from './stages';

/** A state of a sheet: its design, and where they are known its name and what was kept of it. */
export type SheetState = SheetDesign & { title?: string; keeps?: readonly Keep[] };

const NO_NAMES: NamesOfEntries = new Map();

/**
 * Everything in which two states of a sheet differ, in words: what was asked first, then values and
 * parts, then what hangs on them. Whatever is told apart by the documents is told here, if only by
 * the name of its field; how a sheet is looked at is not.
 *
 * @param entries names of takes, drivers and parts of the drawer that they refer to
 * @returns nothing where both are the same
 */
export function changesBetween(
  before: SheetState,
  after: SheetState,
  entries: NamesOfEntries = NO_NAMES,
): Change[] {
  return [
    ...titleChange(before, after),
    ...askChanges(before, after),
    ...keepChanges(before.keeps ?? [], after.keeps ?? []),
    ...stageChanges(before, after, entries),
    ...fieldChanges('surroundings', 'Source', before.source, after.source),
    ...wayChanges(before.ways, after.ways, entries),
    ...controlChanges(before, after),
    ...fieldChanges('surroundings', 'Parts', before.parts, after.parts),
    ...fieldChanges('ask', 'Bank', before.bank, after.bank),
    ...fieldChanges('ask', 'Crossover', before.crossover, after.crossover),
    ...readingChanges(before, after),
    ...boardChanges(before, after, entries),
    ...stripboardChange(before, after),
  ];
}

const titleChange = (before: SheetState, after: SheetState): Change[] =>
  before.title === undefined || after.title === undefined || before.title === after.title
    ? []
    : [
        {
          kind: 'name',
          what: 'Name of the sheet',
          before: quoted(before.title),
          after: quoted(after.title),
        },
      ];

/** Circuits are told by their names. */
const withTopologyName = <T extends { topology?: string }>(ask: T): T =>
  ask.topology !== undefined && hasTopology(ask.topology)
    ? { ...ask, topology: topologyOf(ask.topology).name }
    : ask;

const askChanges = (before: SheetState, after: SheetState): Change[] =>
  before.ask === after.ask
    ? []
    : fieldChanges('ask', 'Ask', withTopologyName(before.ask), withTopologyName(after.ask));

/** Differences of a part of the document, by the names of its fields. */
function fieldChanges(kind: ChangeKind, called: string, before: unknown, after: unknown): Change[] {
  return leavesBetween(before, after).map((leaf) => ({
    kind,
    what: leaf.path.length === 0 ? called : `${called}: ${pathWords(leaf.path)}`,
    ...leafWords(leaf),
  }));
}

function keepChanges(before: readonly Keep[], after: readonly Keep[]): Change[] {
  if (before === after) return [];
  const was = new Map(before.map((k) => [k.id, k]));
  const is = new Map(after.map((k) => [k.id, k]));
  const keep = (one: Keep, kept: boolean): Change => ({
    kind: 'keep',
    what: 'Keep',
    before: kept ? null : quoted(one.name),
    after: kept ? quoted(one.name) : null,
  });
  return [
    ...before.flatMap((k) => (is.has(k.id) ? [] : [keep(k, false)])),
    ...after.flatMap((k): Change[] => {
      const old = was.get(k.id);
      if (!old) return [keep(k, true)];
      if (old === k) return [];
      const what = `Keep ${quoted(k.name)}`;
      const named = (one: Keep) => ({ name: one.name, shown: one.shown });
      return fieldChanges('keep', what, named(old), named(k));
    }),
  ];
}

/** Where ways begin and end, and which there are. */
function wayChanges(
  before: readonly Way[],
  after: readonly Way[],
  entries: NamesOfEntries,
): Change[] {
  if (before === after) return [];
  const told = (way: Way) => ({
    ...without(way, ['stages']),
    to:
      way.to.is === 'driver'
        ? { ...without(way.to, ['model']), driver: entryName(entries, 'drivers', way.to.driver) }
        : without(way.to, ['model']),
  });
  const was = new Map(before.map((w) => [w.id, w]));
  const is = new Map(after.map((w) => [w.id, w]));
  const called = (way: Way) => (way.name === '' ? 'Path' : way.name);
  return [
    ...before.flatMap((w): Change[] =>
      is.has(w.id)
        ? []
        : [{ kind: 'path', what: `Path ${quoted(w.name || w.id)}`, before: '', after: null }],
    ),
    ...after.flatMap((w): Change[] => {
      const old = was.get(w.id);
      if (!old)
        return [{ kind: 'path', what: `Path ${quoted(w.name || w.id)}`, before: null, after: '' }];
      return old === w ? [] : fieldChanges('surroundings', called(w), told(old), told(w));
    }),
    ...(before.length === after.length &&
    after.every((w) => was.has(w.id)) &&
    after.some((w, i) => w.id !== before[i].id)
      ? [
          {
            kind: 'path' as const,
            what: 'Order of paths',
            before: before.map(called).join(', '),
            after: after.map(called).join(', '),
          },
        ]
      : []),
  ];
}

/** Controls, with their places in per cent of their travel. */
function controlChanges(before: SheetDesign, after: SheetDesign): Change[] {
  if (before.controls === after.controls) return [];
  const told = ({ controls }: SheetDesign) =>
    controls.map((c) => ({ ...without(c, ['at']), id: c.id, atPercent: 100 * c.at }));
  return leavesBetween(told(before), told(after)).map((leaf) => ({
    kind: 'control',
    what: `Control ${pathWords(leaf.path.filter((p) => p !== 'atPercent'))}`,
    ...leafWords(leaf),
  }));
}

const stripboardChange = (before: SheetDesign, after: SheetDesign): Change[] =>
  JSON.stringify(before.stripboard) === JSON.stringify(after.stripboard)
    ? []
    : [
        {
          kind: 'layout',
          what: 'Stripboard',
          before: before.stripboard ? 'as it was' : null,
          after: after.stripboard ? (before.stripboard ? 'arranged otherwise' : 'arranged') : null,
        },
      ];
