import 'fake-indexeddb/auto';
import { EMPTY_LIBRARY } from '@/core/library';
import { demoMade } from '@/testing/demo';
import type { Sheet } from '@/core/sheet/schema';
import { ReedDatabase, type SheetRecord } from './database';
import { storageProblem } from './problems';
import { inOrder, listCards, searchCards } from './shelf';
import { cardsToShow, tendCards } from './tend-cards';
import { seedDemo } from './seed-demo';
import {
  addSheet,
  addFiles,
  clearOldDeletions,
  copySheet,
  deleteForGood,
  deleteSheet,
  loadSheet,
  openReadable,
  renameSheet,
  restoreDemo,
  restoreSheet,
  saveSheet,
} from './sheets';

const AT = '2026-11-23T08:00:00.000Z';
let db: ReedDatabase;
let count = 0;

beforeEach(async () => {
  db = new ReedDatabase(`test-${count++}`);
  await seedDemo(db);
  await tendCards(db);
});
afterEach(() => db.delete());

const open = async (id: string): Promise<Sheet> => {
  const item = await loadSheet(id, db);
  if (!item || !('sheet' in item)) throw new Error('no sheet');
  return item.sheet;
};
const plain = (sheet: Sheet) => ({ sheet, along: EMPTY_LIBRARY });
const titles = async () => (await listCards(db)).map((c) => c.title);
const raw = (change: Partial<Record<keyof SheetRecord, unknown>>) =>
  db.sheets.update('demo-trim', change as never);

test('seeds the demo once, and not again after it was deleted', async () => {
  await deleteSheet('demo-rumble', db);
  await seedDemo(db);
  const all = demoMade(AT).map((d) => d.id);
  const there = (await listCards(db)).filter((c) => c.deletedAt === null).map((c) => c.id);
  expect(there.sort()).toEqual(all.filter((id) => id !== 'demo-rumble').sort());
  await restoreSheet('demo-rumble', db);
  expect((await listCards(db)).every((c) => c.deletedAt === null)).toBe(true);
});

describe('nothing is put that does not read back', () => {
  test('copies of long names are cut, not broken', async () => {
    const long = await addSheet(await open('demo-trim'), 'n'.repeat(120), db);
    const copy = await copySheet(long, ' (copy)', db);
    expect(copy.title).toBe(`${'n'.repeat(113)} (copy)`);
    expect(await open(copy.id)).toEqual(copy);
  });

  test.each([
    ['an edge of 20 MHz', (s: Sheet) => ({ ...s, ask: { ...s.ask, edgeHz: 2e7 } })],
    ['a name too long', (s: Sheet) => ({ ...s, title: 'n'.repeat(121) })],
    ['no number', (s: Sheet) => ({ ...s, ask: { ...s.ask, edgeHz: NaN } })],
  ])('%s is refused, and what is stored stays', async (_, change) => {
    const before = await open('demo-trim');
    await expect(saveSheet(change(before), 'tell', db)).rejects.toThrow(/must be/);
    await expect(addSheet(change(before), change(before).title, db)).rejects.toThrow(/must be/);
    expect(await open('demo-trim')).toEqual(before);
  });
});

describe('another version is never overwritten', () => {
  test('two tabs with the same sheet: the second to save is told', async () => {
    const [mine, theirs] = [await open('demo-trim'), await open('demo-trim')];
    expect(await saveSheet({ ...theirs, title: 'theirs' }, 'tell', db)).toHaveProperty('saved');
    const result = await saveSheet({ ...mine, title: 'mine' }, 'tell', db);
    expect(result).toMatchObject({ conflict: { title: 'theirs' } });
    expect((await open('demo-trim')).title).toBe('theirs');
  });

  test('a record damaged meanwhile is kept beside, to the last byte', async () => {
    const mine = await open('demo-trim');
    const document = { title: 'Trim, hurt', stages: [1, 2, { three: 3 }] };
    await raw({ document });
    expect(await saveSheet(mine, 'tell', db)).toMatchObject({ aside: 'Trim, hurt' });
    expect(await open('demo-trim')).toMatchObject({ title: mine.title });
    const kept = await db.sheets.filter((r) => r.id !== 'demo-trim').toArray();
    expect(kept.map((r) => r.document)).toContainEqual(document);
    expect(await titles()).toContain('Trim, hurt');
  });

  test('a record of a newer program stays where it is', async () => {
    const mine = await open('demo-trim');
    const document = { ...mine, version: 99, novelty: true };
    await raw({ document });
    expect(await saveSheet(mine, 'tell', db)).toEqual({ newer: true });
    expect((await db.sheets.get('demo-trim'))!.document).toEqual(document);
  });

  test('bringing the demo back sets everything else aside first', async () => {
    await saveSheet({ ...(await open('demo-trim')), title: 'Trim, changed' }, 'tell', db);
    await saveSheet({ ...(await open('demo-hum')), title: 'x'.repeat(120) }, 'tell', db);
    await deleteSheet('demo-hum', db);
    const newer = { ...(await open('demo-rumble')), version: 99 };
    await db.sheets.update('demo-rumble', { document: newer, revision: 0 });
    const own = await addSheet(demoMade(AT)[2], 'My own', db);
    expect(await restoreDemo(db)).toBe(3);
    expect(await titles()).toEqual(
      expect.arrayContaining([
        'My own',
        'Trim, changed (yours)',
        'Top trimmed on the keyboard line',
        `${'x'.repeat(112)} (yours)`,
      ]),
    );
    expect(await open(own.id)).toEqual(own);
    expect((await db.sheets.toArray()).map((r) => r.document)).toContainEqual(newer);
    expect(await restoreDemo(db)).toBe(0);
  });
});

test('a list of sheets is added whole or not at all, each under an id of its own', async () => {
  const sheet = await open('demo-trim');
  const added = await addFiles([plain(sheet), plain({ ...sheet, title: 'Second' })], db);
  expect(new Set([sheet.id, ...added.map((s) => s.id)]).size).toBe(3);
  for (const one of added) expect(await open(one.id)).toEqual(one);
  const before = await db.sheets.count();
  const bad = { ...sheet, title: '' };
  await expect(addFiles([plain(sheet), plain(bad)], db)).rejects.toThrow(/name must have/);
  expect(await db.sheets.count()).toBe(before);
});

describe('deleted sheets', () => {
  test('a save is told, brings back, or stays deleted with its last edits', async () => {
    const sheet = await open('demo-trim');
    await deleteSheet('demo-trim', db);
    expect(await saveSheet(sheet, 'tell', db)).toEqual({ gone: true });
    expect(await loadSheet('demo-trim', db)).toBeUndefined();
    await saveSheet({ ...sheet, title: 'last words' }, 'stay-deleted', db);
    expect(await loadSheet('demo-trim', db)).toBeUndefined();
    await restoreSheet('demo-trim', db);
    const back = await open('demo-trim');
    expect(back.title).toBe('last words');
    await deleteForGood('demo-trim', db);
    expect(await saveSheet(back, 'tell', db)).toEqual({ gone: true });
    expect(await saveSheet(back, 'bring-back', db)).toHaveProperty('saved');
  });

  test('stay a week and no longer', async () => {
    const ago = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString();
    await deleteSheet('demo-trim', db);
    await deleteSheet('demo-hum', db);
    await deleteSheet('demo-rumble', db);
    await raw({ deletedAt: ago(8) });
    await db.sheets.update('demo-hum', { deletedAt: ago(6) });
    await tendCards(db);
    await clearOldDeletions(db);
    const deleted = (await listCards(db)).filter((c) => c.deletedAt !== null).map((c) => c.id);
    expect(deleted.sort()).toEqual(['demo-hum', 'demo-rumble']);
    expect(await db.sheets.get('demo-trim')).toBeUndefined();
  });
});

describe('damaged records', () => {
  test('show by whatever of title, date and id is legible, and are left as they are', async () => {
    const document = { format: 'jaunty-reed/sheet', version: 1, title: 'Half a sheet' };
    await raw({ document, updatedAt: { not: 'a date' }, revision: 'x' });
    await tendCards(db);
    const card = (await listCards(db)).find((c) => c.id === 'demo-trim');
    expect(card).toMatchObject({ title: 'Half a sheet', updatedAt: '' });
    expect(card?.problem).toMatch(/is missing/);
    const before = await db.sheets.get('demo-trim');
    const { sheet, leftOut } = await openReadable('demo-trim', db);
    expect(sheet.title).toBe('Half a sheet (what could be read)');
    expect(leftOut.join()).toMatch(/the ask: it is missing/);
    expect(await open(sheet.id)).toEqual(sheet);
    expect(await db.sheets.get('demo-trim')).toEqual(before);
  });

  test.each([
    ['a revision that is no number', { revision: 'seven' }],
    ['a revision below zero', { revision: -3 }],
    ['another revision than its document’s', { revision: 40 }],
    ['a date that is none', { updatedAt: 12 }],
    ['a mark of deletion that is none', { deletedAt: 0 }],
  ])('%s neither hides a sheet nor makes a conflict', async (_, change) => {
    await raw(change);
    await tendCards(db);
    expect(await titles()).toContain('Top trimmed on the keyboard line');
    const sheet = await open('demo-trim');
    const result = await saveSheet({ ...sheet, title: 'edited' }, 'tell', db);
    expect(result).toMatchObject({ saved: { title: 'edited' } });
  });

  test('a document that names another id is that of its record', async () => {
    await raw({ document: { ...(await open('demo-trim')), id: 'someone-else' } });
    const sheet = await open('demo-trim');
    expect(sheet.id).toBe('demo-trim');
    expect(await saveSheet(sheet, 'tell', db)).toHaveProperty('saved');
    expect(await db.sheets.get('someone-else')).toBeUndefined();
  });
});

describe('cards', () => {
  test('follow records that something else wrote, removed or changed', async () => {
    const sheet = await open('demo-trim');
    const bulk = Array.from({ length: 90 }, (_, i): SheetRecord => {
      const document = { ...sheet, id: `b${i}`, title: `Bulk ${i}` };
      return { id: `b${i}`, updatedAt: AT, revision: 1, deletedAt: null, document };
    });
    await db.sheets.bulkAdd(bulk);
    await db.sheets.delete('demo-hum');
    expect(await tendCards(db)).toBe(91);
    expect(await titles()).toContain('Bulk 89');
    expect(await titles()).not.toContain('Hum notch for the stage piano');
    expect(await tendCards(db)).toBe(0);
    await db.sheets.update('b7', { document: { ...sheet, id: 'b7', title: 'Other' } });
    expect(await tendCards(db)).toBe(1);
    expect(await titles()).toContain('Other');
  });

  test('that there is no room for are made all the same', async () => {
    const all = await titles();
    await db.cards.clear();
    db.cards.hook('creating', () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    });
    await expect(tendCards(db)).rejects.toThrow();
    expect(await titles()).toEqual([]);
    expect(
      inOrder(await cardsToShow(db))
        .map((c) => c.title)
        .sort(),
    ).toEqual([...all].sort());
  });

  test('are found by name and by what the sheet does', async () => {
    const cards = await listCards(db);
    const ids = (query: string) => searchCards(cards, query).map((c) => c.id);
    expect(ids('rumble deck')).toEqual(['demo-rumble']);
    expect(ids('NOTCH')).toContain('demo-hum');
    expect(ids('low-pass order 4')).toContain('demo-speech');
    expect(ids('3k4')).toContain('demo-speech');
    expect(ids('nothing of the kind')).toEqual([]);
  });

  test('are renamed with their sheet', async () => {
    await renameSheet('demo-trim', 'Renamed', db);
    expect(await titles()).toContain('Renamed');
    expect((await open('demo-trim')).title).toBe('Renamed');
  });
});

test('what the store refuses is said in words', () => {
  const quota = new DOMException('x', 'QuotaExceededError');
  expect(storageProblem(quota)).toMatch(/storage is full/);
  expect(storageProblem({ name: 'AbortError', inner: quota })).toMatch(/storage is full/);
  expect(storageProblem(new TypeError('a.b is not a function'))).not.toMatch(/function/);
});
