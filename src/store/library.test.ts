import 'fake-indexeddb/auto';
import { EMPTY_LIBRARY, type Library } from '@/core/library';
import { DRIVER, STOCK, TAKE } from '@/core/library/testing';
import { designOf } from '@/core/sheet/design-of';
import { fileOf, readSheetFile } from '@/core/sheet/file';
import { makeSheet } from '@/core/sheet/make';
import { referencesOf } from '@/core/sheet/references';
import type { Keep, Sheet } from '@/core/sheet/schema';
import { ReedDatabase } from './database';
import { libraryFor } from './library';
import { tendCards } from './tend-cards';
import {
  addFiles,
  addSheet,
  clearOldDeletions,
  copySheet,
  deleteForGood,
  deleteSheet,
  loadSheet,
  openReadable,
  restoreSheet,
  saveSheet,
  storedDocument,
  storedDocuments,
} from './sheets';

const AT = '2026-11-23T08:00:00.000Z';
const ASK = {
  kind: 'low-pass',
  shape: 'butterworth',
  order: 2,
  edgeHz: 1000,
  edge: 'half-power',
} as const;
const LIBRARY: Library = { takes: [TAKE], drivers: [DRIVER], drawer: [STOCK] };

let db: ReedDatabase;
let count = 0;
beforeEach(() => (db = new ReedDatabase(`library-${count++}`)));
afterEach(() => db.delete());

const plain = makeSheet({ id: 'a', title: 'Plain', ask: ASK, at: AT });
const keep = (id: string, name = id): Keep => ({
  id,
  name,
  at: AT,
  shown: true,
  design: designOf(plain),
});
const open = async (id: string): Promise<Sheet> => {
  const found = await loadSheet(id, db);
  if (!found || !('sheet' in found)) throw new Error('no sheet');
  return found.sheet;
};
const save = async (sheet: Sheet): Promise<Sheet> => {
  const result = await saveSheet(sheet, 'tell', db);
  if (!('saved' in result)) throw new Error('not saved');
  return result.saved;
};
const keys = async (sheet: Sheet) =>
  ((await db.sheets.get(sheet.id))!.document as { keeps: string[] }).keeps;

describe('keeps are stored apart', () => {
  test('and come back in their places, while an edit writes none of them again', async () => {
    const added = await addSheet({ ...plain, keeps: [keep('k1'), keep('k2')] }, 'Kept', db);
    const before = await keys(added);
    const writes: string[] = [];
    db.keeps.hook('creating', (key) => void writes.push(`made ${key}`));
    db.keeps.hook('deleting', (key) => void writes.push(`removed ${key}`));
    db.keeps.hook('updating', (_, key) => void writes.push(`changed ${key}`));
    const saved = await save({ ...(await open(added.id)), title: 'Edited' });
    expect(await keys(saved)).toEqual(before);
    expect(writes).toEqual([]);
    expect((await open(added.id)).keeps).toEqual(added.keeps);
    // A renamed one is another record; one that was taken out goes, and comes back with undo.
    const [first, second] = saved.keeps;
    const renamed = await save({ ...saved, keeps: [{ ...first, name: 'Other' }, second] });
    expect(writes).toEqual([`made ${(await keys(renamed))[0]}`, `removed ${before[0]}`]);
    const without = await save({ ...renamed, keeps: [second] });
    expect(await db.keeps.count()).toBe(1);
    const undone = await save({ ...without, keeps: renamed.keeps });
    expect((await open(undone.id)).keeps.map((k) => k.name)).toEqual(['Other', 'k2']);
  });

  test('of a copy too, which outlives the sheet it came from', async () => {
    const added = await addSheet({ ...plain, keeps: [keep('k1')] }, 'Kept', db);
    const copy = await copySheet(added, ' (copy)', db);
    await deleteForGood(added.id, db);
    expect(await open(copy.id)).toEqual(copy);
    expect(await db.keeps.count()).toBe(1);
  });

  test('a record of one piece is read, and divided when it is next stored', async () => {
    const whole = { ...plain, keeps: [keep('k1')], revision: 3 };
    await db.sheets.put({ id: 'a', updatedAt: AT, revision: 3, deletedAt: null, document: whole });
    const saved = await save(await open('a'));
    expect(await keys(saved)).toEqual([expect.any(String)]);
    expect((await open('a')).keeps).toEqual(whole.keeps);
  });

  test('one that is missing is said; the rest can be opened, and nothing is overwritten', async () => {
    const added = await addSheet({ ...plain, keeps: [keep('k1'), keep('k2')] }, 'Kept', db);
    await db.keeps.delete((await keys(added))[0]);
    expect(await loadSheet(added.id, db)).toMatchObject({
      problem: expect.stringContaining('“keeps[0]”') as string,
    });
    const { sheet, leftOut } = await openReadable(added.id, db);
    expect(sheet.keeps.map((k) => k.id)).toEqual(['k2']);
    expect(leftOut).toHaveLength(1);
    expect(await keys(added)).toHaveLength(2);
  });

  test('an export holds them, and a save that fails leaves them as they were', async () => {
    const added = await addSheet({ ...plain, keeps: [keep('k1')] }, 'Kept', db);
    expect(await storedDocument(added.id, db)).toEqual(JSON.parse(JSON.stringify(added)));
    expect(await storedDocuments(db)).toEqual([JSON.parse(JSON.stringify(added))]);
    db.cards.hook('creating', () => {
      throw new Error('full');
    });
    db.cards.hook('updating', () => {
      throw new Error('full');
    });
    const renamed = { ...added, keeps: [{ ...added.keeps[0], name: 'New' }, keep('k9')] };
    await expect(saveSheet(renamed, 'tell', db)).rejects.toThrow();
    expect((await open(added.id)).keeps).toEqual(added.keeps);
  });

  test('one tab’s keeps are not taken away by another that is behind', async () => {
    const added = await addSheet({ ...plain, keeps: [keep('k1')] }, 'Kept', db);
    const behind = await open(added.id);
    await save({ ...added, keeps: [...added.keeps, keep('k2')] });
    expect(await saveSheet({ ...behind, keeps: [] }, 'tell', db)).toHaveProperty('conflict');
    expect((await open(added.id)).keeps.map((k) => k.id)).toEqual(['k1', 'k2']);
  });
});

/** A sheet with a board that has a take, and a way into a loudspeaker. */
const referring = (title = 'Spoken'): Sheet => ({
  ...plain,
  title,
  ways: [
    {
      ...plain.ways[0],
      to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false },
    },
  ],
  boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
});
const file = (title?: string, along: Library = LIBRARY) => ({ sheet: referring(title), along });

describe('what sheets refer to', () => {
  test('comes with a file, goes along with the next, and arrives elsewhere as it was', async () => {
    const [added] = await addFiles([file()], db);
    const { library, problems } = await libraryFor([added], db);
    expect(problems).toEqual([]);
    expect(library).toEqual({ takes: [TAKE], drivers: [DRIVER], drawer: [] });
    const text = JSON.stringify(fileOf(added, library));
    const elsewhere = new ReedDatabase(`library-${count++}`);
    const [there] = await addFiles([readSheetFile(JSON.parse(text))], elsewhere);
    expect((await libraryFor([there], elsewhere)).library).toEqual(library);
    await elsewhere.delete();
    // The whole shelf in one file says so for each sheet.
    expect(await storedDocuments(db)).toEqual([JSON.parse(text)]);
  });

  test('is shared by those that say the same, and kept apart from what differs', async () => {
    const other = { ...DRIVER, model: { ...DRIVER.model, reOhms: 4 } };
    const [first, same, apart] = await addFiles(
      [file('1'), file('2'), file('3', { ...LIBRARY, drivers: [other] })],
      db,
    );
    expect(referencesOf(same)).toEqual(referencesOf(first));
    const [id] = referencesOf(apart).drivers;
    expect(id).not.toBe(DRIVER.id);
    expect((await libraryFor([apart], db)).library.drivers).toEqual([{ ...other, id }]);
    expect((await libraryFor([first], db)).library.drivers).toEqual([DRIVER]);
    expect(await db.takes.count()).toBe(1);
  });

  test('is added with its sheet or not at all', async () => {
    const bad = { sheet: { ...referring(), title: '' }, along: LIBRARY };
    await expect(addFiles([bad], db)).rejects.toThrow(/name must have/);
    expect(await db.takes.count()).toBe(0);
    expect(await db.sheets.count()).toBe(0);
  });

  test('missing or damaged is said, and the rest stands', async () => {
    const [added] = await addFiles([file()], db);
    await db.takes.delete(TAKE.id);
    await db.drivers.put({ id: DRIVER.id, document: { ...DRIVER, model: {} } });
    const { library, problems } = await libraryFor([added], db);
    expect(library).toEqual(EMPTY_LIBRARY);
    expect(problems).toEqual([
      'A take that it refers to is not in this browser.',
      expect.stringMatching(/^The loudspeaker cannot be read at “model/),
    ]);
  });

  test('a take goes with the last sheet that has it; a loudspeaker stays', async () => {
    const [one] = await addFiles([file()], db);
    const two = await copySheet(one, ' (copy)', db);
    await deleteSheet(one.id, db);
    await restoreSheet(one.id, db);
    await deleteForGood(one.id, db);
    expect(await db.takes.count()).toBe(1);
    await deleteSheet(two.id, db);
    await tendCards(db);
    await db.sheets.update(two.id, { deletedAt: '2020-01-01T00:00:00.000Z' });
    await db.cards.update(two.id, { deletedAt: '2020-01-01T00:00:00.000Z' });
    await clearOldDeletions(db);
    expect(await db.sheets.count()).toBe(0);
    expect(await db.takes.count()).toBe(0);
    expect(await db.drivers.count()).toBe(1);
  });
});
