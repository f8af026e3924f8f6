/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import { ReedDatabase } from './database';
import { usePreferences } from './preferences';
import { tendCards } from './tend-cards';
import { seedDemo } from './seed-demo';
import { loadSheet, saveSheet } from './sheets';

/*
 * Two versions of the program in two tabs: the earlier one goes on beside the newer one, and neither
 * takes from the other what it does not know.
 */

/** The database as some later version will have it. */
class Newer extends ReedDatabase {
  constructor(name: string) {
    super(name);
    this.version(5).stores({ sheets: 'id, updatedAt, *refers, later', laterThings: 'id' });
  }
}

const titleOf = async (db: ReedDatabase) => {
  const item = await loadSheet('demo-rumble', db);
  return item && 'sheet' in item ? item.sheet.title : item?.problem;
};

// What the database says to whoever debugs it when it steps aside.
beforeAll(() => void jest.spyOn(console, 'warn').mockImplementation(() => undefined));

test('an earlier version stores on while a newer one changes the database, and both read all of it', async () => {
  const earlier = new ReedDatabase('two-versions');
  await seedDemo(earlier);
  await tendCards(earlier);
  const item = await loadSheet('demo-rumble', earlier);
  if (!item || !('sheet' in item)) throw new Error('no sheet');

  const newer = new Newer('two-versions');
  await newer.open();
  await newer.table('laterThings').put({ id: 'x', what: 'of a later kind' });
  expect(await titleOf(newer)).toBe('Rumble filter for the record deck');

  const renamed = { ...item.sheet, title: 'Renamed in the earlier tab' };
  expect(await saveSheet(renamed, 'tell', earlier)).not.toHaveProperty('gone');
  expect(await titleOf(newer)).toBe('Renamed in the earlier tab');
  expect(await newer.table('laterThings').count()).toBe(1);

  // Begun anew, the earlier version finds a database that is newer than itself.
  earlier.close();
  const again = new ReedDatabase('two-versions');
  expect(await titleOf(again)).toBe('Renamed in the earlier tab');
  expect(await newer.table('laterThings').count()).toBe(1);
  for (const db of [again, newer]) db.close();
});

test('preferences of a later version stay when an earlier one changes its own, in either tab', async () => {
  const KEY = 'jaunty-reed-preferences';
  const stored = () =>
    (JSON.parse(localStorage.getItem(KEY) ?? '{}') as { state: Record<string, unknown> }).state;
  const written = JSON.stringify({ state: { theme: 'dark', laterWish: 'blue' }, version: 1 });
  localStorage.setItem(KEY, written);
  window.dispatchEvent(new StorageEvent('storage', { key: KEY, newValue: written }));
  await Promise.resolve();
  expect(usePreferences.getState().theme).toBe('dark');
  usePreferences.getState().set({ mark: 'comma' });
  expect(stored()).toMatchObject({ theme: 'dark', mark: 'comma', laterWish: 'blue' });
});
