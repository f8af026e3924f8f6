import type { SheetDesign, Reading } from '@/core/sheet/schema';
import { printWanted, readingName } from '@/core/sheet/words';
import type { Change } from './change';
import { leafWords, leavesBetween, pathWords } from './leaves';

/** What two designs differ in, in what is read of them and wanted. */
export function readingChanges(before: SheetDesign, after: SheetDesign): Change[] {
  if (before.readings === after.readings) return [];
  const was = new Map(before.readings.map((r) => [r.id, r]));
  const is = new Map(after.readings.map((r) => [r.id, r]));
  const changes: Change[] = [];
  for (const [id, old] of was)
    if (!is.has(id))
      changes.push({
        kind: 'reading',
        what: called(old, before),
        before: wanted(old),
        after: null,
      });
  for (const [id, now] of is) {
    const old = was.get(id);
    const what = called(now, after);
    if (!old) changes.push({ kind: 'reading', what, before: null, after: wanted(now) });
    else changes.push(...between(old, now, before, what));
  }
  const orderOf = (readings: readonly Reading[], other: ReadonlyMap<string, Reading>) =>
    readings.flatMap((r) => (other.has(r.id) ? [r.id] : [])).join(' ');
  if (orderOf(before.readings, is) !== orderOf(after.readings, was))
    changes.push({
      kind: 'reading',
      what: 'Order of readings',
      before: 'as it was',
      after: 'another',
    });
  return changes;
}

const called = (reading: Reading, { ways }: SheetDesign): string =>
  `Reading “${readingName(
    reading,
    'point',
    ways[0].stages.map((s) => s.id),
  )}”`;

const wanted = ({ measure, wanted }: Reading): string =>
  wanted ? `wanted ${printWanted(measure, wanted)}` : 'nothing wanted';

function between(old: Reading, now: Reading, before: SheetDesign, what: string): Change[] {
  if (old === now) return [];
  const [was, is] = [wanted(old), wanted(now)];
  const changes: Change[] =
    was !== is
      ? [{ kind: 'reading', what, before: was, after: is }]
      : leavesBetween(old.wanted, now.wanted).map((leaf) => ({
          kind: 'reading',
          what: `${what}, wanted ${pathWords(leaf.path)}`,
          ...leafWords(leaf),
        }));
  const rest = ({ name, measure, at }: Reading) => ({ name, measure, at });
  const leaves = leavesBetween(rest(old), rest(now));
  if (leaves.length > 0 && called(old, before) !== what)
    changes.push({ kind: 'reading', what: 'Reading', before: called(old, before), after: what });
  else
    for (const leaf of leaves)
      changes.push({
        kind: 'reading',
        what: `${what}, ${pathWords(leaf.path)}`,
        ...leafWords(leaf),
      });
  return changes;
}
