import 'fake-indexeddb/auto';
import { ArchiveReader } from '@/core/archive/reader';
import { DRIVER, STOCK, TAKE } from '@/core/library/testing';
import type { Sheet } from '@/core/sheet/schema';
import { EMPTY_PLAN, type Plan } from '@/core/plan/plan';
import { newSheet } from '@/testing/open-sheet';
import { planFor, takeIn, type Choice } from './archive-in';
import { archivedTables, writeArchive } from './archive-out';
import { addNote } from './book';
import { ReedDatabase } from './database';
import { addPicture } from './pictures';
import { useLessons } from './lessons';
import { usePlan } from './plan';
import { usePractice } from './practice';
import { usePreferences } from './preferences';
import { seedDemo } from './seed-demo';
import { addFiles, deleteSheet, loadSheet, renameSheet, saveSheet } from './sheets';

let count = 0;
const opened: ReedDatabase[] = [];
function freshBrowser(): ReedDatabase {
  const db = new ReedDatabase(`archive-${count++}`);
  opened.push(db);
  return db;
}
afterEach(async () => {
  for (const db of opened.splice(0)) await db.delete();
});

const PNG = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 9, 8, 7]);

/** A browser in which a good deal was done. */
async function worked(): Promise<{ db: ReedDatabase; sheet: Sheet }> {
  const db = freshBrowser();
  await seedDemo(db);
  const board = { id: 'b1', name: 'Seven', values: {}, takes: [TAKE.id], note: '' };
  const along = { takes: [TAKE], drivers: [DRIVER], drawer: [STOCK] };
  const [first] = await addFiles([{ sheet: newSheet(undefined, { boards: [board] }), along }], db);
  const { ask, parts, source, ways, readings, controls, boards } = first;
  const design = { ask, parts, source, ways, readings, controls, boards };
  const keeps = [{ id: 'k1', name: 'first', at: first.createdAt, shown: true, design }];
  const result = await saveSheet({ ...first, keeps, source: { ...source, ohms: 600 } }, 'tell', db);
  const sheet = (result as { saved: Sheet }).saved;
  const [gone] = await addFiles(
    [{ sheet: newSheet(), along: { takes: [], drivers: [], drawer: [] } }],
    db,
  );
  await deleteSheet(gone.id, db);
  const note = await addNote('The hum is the lamp.', sheet, db);
  await addPicture(note, PNG, db);
  await db.sheets.put({
    id: 'broken',
    updatedAt: '',
    revision: 0,
    deletedAt: null,
    document: { title: 7 },
  });
  return { db, sheet };
}

async function archived(db: ReedDatabase): Promise<ArchiveReader> {
  const chunks: Uint8Array[] = [];
  await writeArchive((chunk) => chunks.push(chunk), undefined, db);
  return new ArchiveReader(Uint8Array.from(Buffer.concat(chunks)));
}

/** Everything that is stored, with keeps in their sheets; without what only tells when a line was put. */
async function everything(db: ReedDatabase) {
  const sheets = await Promise.all(
    (await db.sheets.toArray()).map(async ({ id, deletedAt, document }) => {
      const read = await loadSheet(id, db);
      return { id, deletedAt, is: read && 'sheet' in read ? read.sheet : document };
    }),
  );
  const names = ['takes', 'drivers', 'drawer', 'states', 'pictures'] as const;
  const rest = await Promise.all(names.map((name) => db[name].toArray() as Promise<unknown[]>));
  const book = (await db.book.toArray()).map(({ id, sheet, at, document }) => ({
    id,
    sheet,
    at,
    document,
  }));
  return { sheets, rest, book };
}
const take = (
  reader: ArchiveReader,
  db: ReedDatabase,
  choices: [string, Choice][] = [],
  replace = false,
) => takeIn(reader, { replace, choices: new Map(choices), settings: true }, undefined, db);

const PLAN: Plan = {
  ...EMPTY_PLAN,
  hours: { order: 2 },
  own: [{ id: 'front', title: 'Drill the front', hours: 1, after: [] }],
};

test('out and into a fresh browser it is the same data, whatever stood there before', async () => {
  const { db } = await worked();
  usePreferences.setState({ theme: 'dark', mark: 'comma' });
  usePractice.setState({ deal: 7 });
  usePlan.setState(PLAN);
  useLessons.setState({ sheets: { 'rc-edge': 'x' } });
  const reader = await archived(db);
  usePreferences.setState({ theme: 'light', mark: 'point' });
  usePractice.setState({ deal: 1 });
  usePlan.setState(EMPTY_PLAN);
  useLessons.setState({ sheets: {} });
  const empty = freshBrowser();
  await take(reader, empty);
  expect(await everything(empty)).toEqual(await everything(db));
  expect(usePreferences.getState()).toMatchObject({ theme: 'dark', mark: 'comma' });
  expect(usePractice.getState().deal).toBe(7);
  expect(usePlan.getState()).toEqual(PLAN);
  expect(useLessons.getState().sheets).toEqual({ 'rc-edge': 'x' });
  const other = (await worked()).db;
  await take(reader, other, [], true);
  expect(await everything(other)).toEqual(await everything(db));
  // And it is written again as it was.
  const again = await archived(empty);
  expect(again.index.files).toEqual(reader.index.files);
});

test('merged with what is here, nothing is doubled and only what differs is asked about', async () => {
  const { db, sheet } = await worked();
  const reader = await archived(db);
  const before = await everything(db);
  const plan = await planFor(reader, db);
  expect(plan).toMatchObject({ fresh: 0, conflicts: [] });
  await take(reader, db);
  expect(await everything(db)).toEqual(before);
  await renameSheet(sheet.id, 'Named otherwise', db);
  await db.takes.update(TAKE.id, { document: { ...TAKE, note: 'another day' } });
  const { conflicts } = await planFor(reader, db);
  expect(conflicts.map((c) => [c.key, c.name])).toEqual([
    [`sheet/${sheet.id}`, sheet.title],
    [`takes/${TAKE.id}`, TAKE.name],
  ]);
});

test.each<[Choice, string[]]>([
  ['mine', ['Named otherwise']],
  ['theirs', ['On the bench']],
  ['both', ['Named otherwise', 'On the bench (from the archive)']],
])('a conflict decided for %s', async (choice, titles) => {
  const { db, sheet } = await worked();
  const reader = await archived(db);
  await renameSheet(sheet.id, 'Named otherwise', db);
  await take(reader, db, [[`sheet/${sheet.id}`, choice]]);
  const all = (await everything(db)).sheets.flatMap(({ is, deletedAt }) =>
    deletedAt === null && (is as Sheet).demo === undefined && (is as Sheet).ways
      ? [is as Sheet]
      : [],
  );
  expect(all.map((s) => s.title).sort()).toEqual(titles);
  expect(all.every((s) => s.keeps.length === 1)).toBe(true);
  if (choice === 'theirs') {
    // Another tab notices; the book tells that the new name was gone back on.
    expect(all[0].revision).toBeGreaterThan(sheet.revision + 1);
    const lines = await db.book.toArray();
    expect(JSON.stringify(lines)).toContain('"undone":true');
  }
});

test('broken off at any point, everything is as it was', async () => {
  const { db } = await worked();
  const reader = await archived(db);
  for (const [table, at] of [
    ['takes', 0],
    ['book', 1],
    ['states', 0],
    ['sheets', 3],
    ['cards', 5],
    ['pictures', 0],
  ] as const) {
    const other = (await worked()).db;
    const before = await everything(other);
    let puts = 0;
    const put = other[table].put.bind(other[table]);
    const spy = jest
      .spyOn(other[table] as { put: (x: unknown) => unknown }, 'put')
      .mockImplementation((x: unknown) =>
        puts++ === at ? Promise.reject(new Error('the power went')) : put(x as never),
      );
    await expect(take(reader, other, [], true)).rejects.toThrow('the power went');
    spy.mockRestore();
    expect(await everything(other)).toEqual(before);
  }
});

test('tells how far it is, out and in', async () => {
  const { db } = await worked();
  const told: number[] = [];
  await writeArchive(
    () => undefined,
    (done) => told.push(done),
    db,
  );
  expect(told.length).toBeGreaterThan(5);
  expect(told.every((d, i) => d <= 1 && d >= (told[i - 1] ?? 0))).toBe(true);
  expect(told.at(-1)).toBe(1);
  expect(archivedTables(db).length).toBe(db.tables.length - 2);
});
