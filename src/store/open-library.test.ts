import 'fake-indexeddb/auto';
import type { DriverEntry } from '@/core/library/driver';
import { DRIVER, TAKE } from '@/core/library/testing';
import type { Sheet } from '@/core/sheet/schema';
import { closeNow, LOW_PASS, newSheet, openNow, present } from '@/testing/open-sheet';
import { database } from './database';
import { followOpenLibrary, solvedSheet, useOpenLibrary } from './open-library';
import { edit } from './sheet-session';

beforeAll(() => followOpenLibrary());
afterEach(async () => {
  closeNow();
  for (const table of database().tables) await table.clear();
});
afterAll(async () => {
  database().close();
  await new Promise((resolve) => setTimeout(resolve, 50));
});

const spoken = (driver: string): Sheet => {
  const [way] = newSheet().ways;
  return newSheet(LOW_PASS, {
    ways: [{ ...way, to: { is: 'driver', name: 'Woofer', driver, inverted: false } }],
    boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
  });
};
const put = (entry: DriverEntry) => database().drivers.put({ id: entry.id, document: entry });
const until = async (condition: () => boolean) => {
  for (let n = 0; n < 200 && !condition(); n++) await new Promise((r) => setTimeout(r, 5));
  expect(condition()).toBe(true);
};
const { getState } = useOpenLibrary;

test('what the open sheet refers to is at hand, and goes with it', async () => {
  await put(DRIVER);
  await database().takes.put({ id: TAKE.id, document: TAKE });
  openNow(spoken(DRIVER.id));
  await until(() => getState().library.takes.length === 1);
  expect(getState()).toMatchObject({ library: { takes: [TAKE], drivers: [DRIVER] }, problems: [] });
  openNow(newSheet());
  expect(getState().library).toMatchObject({ takes: [], drivers: [] });
});

test('whoever changes a loudspeaker, the sheet is solved with what it is now', async () => {
  await put(DRIVER);
  openNow(spoken(DRIVER.id));
  await until(() => getState().library.drivers.length === 1);
  const model = () => (solvedSheet(present()).ways[0].to as { model?: unknown }).model;
  expect(model()).toEqual(DRIVER.model);
  const softer = { ...DRIVER, model: { ...DRIVER.model, reOhms: 4 } };
  await put(softer);
  await until(() => getState().library.drivers[0]?.model !== undefined && model() !== undefined);
  await until(() => (model() as { reOhms: number }).reOhms === 4);
  // The document itself holds no model.
  expect(JSON.stringify(present())).not.toContain('fsHz');
});

test('one that is not there is said, and comes when it is imported', async () => {
  openNow(spoken('y2'));
  await until(() => getState().problems.length === 2);
  expect(getState().problems[1]).toBe('A loudspeaker that it refers to is not in this browser.');
  const sheet = present();
  expect(solvedSheet(sheet)).toBe(sheet);
  await put({ ...DRIVER, id: 'y2' });
  await until(() => getState().library.drivers.length === 1);
});

test('an edit that refers to nothing else asks for nothing again', async () => {
  await put(DRIVER);
  openNow(spoken(DRIVER.id));
  await until(() => getState().library.drivers.length === 1);
  const { library } = getState();
  edit(() => ({ title: 'Renamed' }));
  await new Promise((r) => setTimeout(r, 30));
  expect(getState().library).toBe(library);
  edit((c) => ({ ways: c.ways.map((w) => ({ ...w, to: newSheet().ways[0].to })) }));
  await until(() => getState().library.drivers.length === 0);
});
