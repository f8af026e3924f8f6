import 'fake-indexeddb/auto';
import { demoSheets } from '@/core/demo/sheets';
import { ReedDatabase } from './database';
import {
  addSheet,
  deleteSheet,
  listSheets,
  loadSheet,
  restoreDemo,
  restoreSheet,
  saveSheet,
  seedDemo,
} from './sheets';
import type { Sheet } from '@/core/sheet/schema';

const AT = '2026-11-23T08:00:00.000Z';
let db: ReedDatabase;
let count = 0;

beforeEach(() => {
  db = new ReedDatabase(`test-${count++}`);
});
afterEach(() => db.delete());

const open = async (id: string): Promise<Sheet> => {
  const item = await loadSheet(id, db);
  if (!item || !('sheet' in item)) throw new Error('no sheet');
  return item.sheet;
};

describe('the shelf’s store', () => {
  test('seeds the demo once, and not again after it was deleted', async () => {
    await seedDemo(db);
    await deleteSheet('demo-rumble', db);
    await seedDemo(db);
    const all = demoSheets(AT).map((d) => d.id);
    const rest = all.filter((id) => id !== 'demo-rumble').sort();
    expect((await listSheets(db)).map((i) => i.id).sort()).toEqual(rest);
    await restoreSheet('demo-rumble', db);
    expect(await listSheets(db)).toHaveLength(all.length);
  });

  test('restoring the demo sets changed demo sheets aside and leaves the user’s own alone', async () => {
    await seedDemo(db);
    const own = await addSheet(demoSheets(AT)[2], 'My own', db);
    await saveSheet({ ...(await open('demo-trim')), title: 'Trim, changed' }, db);
    expect(await restoreDemo(db)).toBe(1);
    const titles = (await listSheets(db)).map((i) => ('sheet' in i ? i.sheet.title : '?'));
    expect(titles).toEqual(
      expect.arrayContaining([
        'My own',
        'Trim, changed (yours)',
        'Top trimmed on the keyboard line',
      ]),
    );
    expect(await open(own.id)).toEqual(own);
  });

  test('two tabs with the same sheet: the second to save is told, and nothing is overwritten', async () => {
    await seedDemo(db);
    const mine = await open('demo-trim');
    const theirs = await open('demo-trim');
    expect(await saveSheet({ ...theirs, title: 'theirs' }, db)).toHaveProperty('saved');
    const result = await saveSheet({ ...mine, title: 'mine' }, db);
    expect(result).toMatchObject({ conflict: { title: 'theirs' } });
    expect((await open('demo-trim')).title).toBe('theirs');
  });

  test('a damaged record is listed with its problem and kept as it is', async () => {
    await seedDemo(db);
    await db.sheets.update('demo-trim', {
      document: { format: 'jaunty-reed/sheet', version: 1, id: 'demo-trim' },
    });
    const damaged = (await listSheets(db)).find((i) => i.id === 'demo-trim');
    expect(damaged).toMatchObject({
      problem: expect.stringContaining('is missing') as string,
      document: { id: 'demo-trim' },
    });
  });
});
