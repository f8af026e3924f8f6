import 'fake-indexeddb/auto';
import type { BookEntry } from '@/core/book/entry';
import { entryWords } from '@/core/book/words';
import { changeWords } from '@/core/differences/change';
import { changesBetween } from '@/core/differences/differences';
import type * as Differences from '@/core/differences/differences';
import { ReedError } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import { newSheet } from '@/testing/open-sheet';
import { addNote, changeEntry, entryOf, figuresDue, putFigures, removeEntry } from './book';
import { ReedDatabase } from './database';
import { buyIntoDrawer, drawerContents } from './drawer';
import {
  addFiles,
  addSheet,
  deleteForGood,
  deleteSheet,
  loadSheet,
  renameSheet,
  saveSheet,
} from './sheets';
import { stateOf } from './states';

jest.mock('@/core/differences/differences', () => {
  const real = jest.requireActual<typeof Differences>('@/core/differences/differences');
  return { ...real, changesBetween: jest.fn(real.changesBetween) };
});

let db: ReedDatabase;
let count = 0;
beforeEach(() => {
  db = new ReedDatabase(`book-${count++}`);
});
afterEach(() => db.delete());

const lines = async (): Promise<BookEntry[]> =>
  (await db.book.orderBy('touched').toArray())
    .flatMap((r) => (r.document === null ? [] : [r.document as BookEntry]))
    .sort((a, b) => a.at.localeCompare(b.at));
const designed = async () => (await lines()).filter((l) => l.kind === 'design');

const withPart = (sheet: Sheet, part: string, value: number): Sheet => {
  const [way] = sheet.ways;
  const [stage, ...rest] = way.stages;
  return { ...sheet, ways: [{ ...way, stages: [withValue(stage, part, value), ...rest] }] };
};
async function save(sheet: Sheet, by?: string): Promise<Sheet> {
  const result = await saveSheet(sheet, 'tell', db, by);
  if (!('saved' in result)) throw new Error('not saved');
  return result.saved;
}
const begun = () => addSheet(newSheet(), 'Speech', db);

test('an edit is written in the transaction that stores it, with the state before it', async () => {
  const sheet = await begun();
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  await save(withPart(edited, 'R1', 5100), 'Fit');
  const [line, ...more] = await designed();
  expect(more).toEqual([]);
  expect(line.changes.map(changeWords)).toEqual([
    expect.stringMatching(/^R1 .* → 5k1$/),
    expect.stringMatching(/^C2 .* → 33n$/),
  ]);
  expect(line.steps.map((s) => s.by)).toEqual([undefined, 'Fit']);
  expect((await stateOf(line.before!, db)).design.ways).toEqual(sheet.ways);
  expect(line.after).toBeUndefined();
});

test('what is stored again from another tab, or after a reload, is told all the same', async () => {
  const sheet = await begun();
  const other = new ReedDatabase(db.name);
  await saveSheet(withPart(sheet, 'C2', 33e-9), 'tell', other);
  other.close();
  const found = await loadSheet(sheet.id, db);
  await save(withPart((found as { sheet: Sheet }).sheet, 'C2', 47e-9));
  const [line] = await designed();
  expect(line.changes.map(changeWords)).toEqual([expect.stringMatching(/^C2 .* → 47n$/)]);
});

test('how a sheet is looked at is nothing for the book; a refused save writes nothing', async () => {
  const sheet = await begun();
  const before = await lines();
  await save({ ...sheet, view: { ...sheet.view, lens: 'phase' } });
  expect(await lines()).toEqual(before);
  const conflict = await saveSheet(withPart(sheet, 'C2', 33e-9), 'tell', db);
  expect(conflict).toHaveProperty('conflict');
  expect(await lines()).toEqual(before);
  // A transaction that fails takes its line with it.
  const bad = jest.spyOn(db.cards, 'put').mockRejectedValueOnce(new Error('full'));
  await expect(save({ ...withPart(sheet, 'C2', 33e-9), revision: 2 })).rejects.toThrow();
  bad.mockRestore();
  expect(await lines()).toEqual(before);
});

test('undoing leaves no lie: the line is marked, and what was tried can still be looked at', async () => {
  const sheet = await begun();
  const tried = await save(withPart(sheet, 'C2', 33e-9));
  const back = await save({ ...tried, ways: sheet.ways });
  const [line] = await designed();
  expect(entryWords(line)).toMatch(/^Tried and taken back: C2 .* → 33n$/);
  expect((await stateOf(line.after!, db)).design.ways).toEqual(tried.ways);
  // Done again, it holds again.
  await save({ ...back, ways: tried.ways });
  expect(entryWords((await designed())[0])).toMatch(/^C2 .* → 33n$/);
});

test('a keep ends a line, and its state is kept with it', async () => {
  const sheet = await begun();
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  const { keeps, ...design } = newSheet();
  void keeps;
  const { ask, parts, source, ways, readings, controls, boards } = design;
  const keep = { ask, parts, source, ways, readings, controls, boards };
  const kept = await save({
    ...edited,
    keeps: [{ id: 'k1', name: 'first try', at: edited.updatedAt, shown: true, design: keep }],
  });
  await save(withPart(kept, 'C2', 10e-9));
  const all = (await lines()).filter((l) => l.kind !== 'begun');
  expect(all.map((l) => l.kind)).toEqual(['design', 'keep', 'design']);
  expect(entryWords(all[1])).toBe('Keep: “first try” added');
  expect((await stateOf(all[0].after!, db)).design.ways).toEqual(edited.ways);
  // Gone back to the keep, that still says what it did.
  const there = await loadSheet(sheet.id, db);
  await save({ ...(there as { sheet: Sheet }).sheet, ways: kept.ways });
  const again = (await lines()).filter((l) => l.kind !== 'begun');
  expect(again.map(entryWords)).toEqual([
    expect.stringMatching(/^C2 .* → 33n$/),
    'Keep: “first try” added',
    expect.stringMatching(/^Tried and taken back: C2/),
  ]);
});

test('what a line ends in outlives the sheet', async () => {
  const sheet = await begun();
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  await deleteSheet(sheet.id, db);
  await deleteForGood(sheet.id, db);
  const [line] = await designed();
  expect((await stateOf(line.after!, db)).design.ways).toEqual(edited.ways);
});

test('new sheets, names, purchases and notes are lines too', async () => {
  const sheet = await begun();
  await renameSheet(sheet.id, 'Speech, second', db);
  await buyIntoDrawer(
    [{ kind: 'resistor', value: 4700, quantity: 50, name: '4k7 metal film', note: '' }],
    2.5,
    db,
  );
  const id = await addNote('The hum is the lamp.', sheet, db);
  await addFiles(
    Array.from({ length: 9 }, () => ({ sheet, along: { takes: [], drivers: [], drawer: [] } })),
    db,
  );
  const words = (await lines()).map((l) => [l.kind, l.name, entryWords(l)]);
  expect(words).toEqual(
    expect.arrayContaining([
      ['begun', 'Speech', 'New on the shelf: “Speech” added'],
      ['design', 'Speech, second', 'Name of the sheet “Speech” → “Speech, second”'],
      ['purchase', 'Bought for 2.50', '50 × 4k7 metal film added'],
      ['note', 'Speech', 'The hum is the lamp.'],
    ]),
  );
  expect(words.filter(([kind]) => kind === 'begun')).toHaveLength(2);
  expect((await drawerContents(db)).entries).toHaveLength(1);
  await changeEntry(id, () => ({ note: 'It was the other lamp.' }), db);
  expect((await entryOf(id, db)).note).toBe('It was the other lamp.');
  await expect(changeEntry(id, () => ({ note: 'x'.repeat(20_000) }), db)).rejects.toThrow(
    /more than 4000/,
  );
  await removeEntry(id, db);
  await expect(entryOf(id, db)).rejects.toThrow(ReedError);
});

test('readings are stored for the state that they are of, and for no later one', async () => {
  const sheet = await begun();
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  const [line] = await designed();
  const due = figuresDue(line)!;
  const figure = {
    name: 'Edge',
    before: 3400,
    after: 3300,
    words: { before: '3.4k', after: '3.3k' },
  };
  await save(withPart(edited, 'C2', 47e-9));
  await putFigures(line.id, due, [figure], db);
  expect((await designed())[0].figures).toBeUndefined();
  const now = figuresDue((await designed())[0])!;
  await putFigures(line.id, now, [figure], db);
  const [told] = await designed();
  expect(told.figures).toEqual({ of: now, list: [figure] });
  expect(figuresDue(told)).toBeNull();
  expect(entryWords(told)).toMatch(/; Edge 3.4k → 3.3k$/);
});

test('a damaged line or state stands in nobody’s way', async () => {
  const sheet = await begun();
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  const [line] = await designed();
  await db.states.update(line.before!, { packed: new Uint8Array([1, 2, 3]) });
  const again = await save(withPart(edited, 'C2', 47e-9));
  await db.book.update(line.id, { document: { nonsense: true } });
  await save(withPart(again, 'C2', 10e-9));
  await expect(entryOf(line.id, db)).rejects.toThrow(/cannot be read/);
});

test('what no words can be found for is stored and told of all the same', async () => {
  const sheet = await begun();
  jest.mocked(changesBetween).mockImplementationOnce(() => {
    throw new TypeError('no words');
  });
  const edited = await save(withPart(sheet, 'C2', 33e-9));
  expect(await loadSheet(sheet.id, db)).toMatchObject({ sheet: { ways: edited.ways } });
  expect((await designed()).map(entryWords)).toEqual(['The sheet as it was → otherwise']);
});
