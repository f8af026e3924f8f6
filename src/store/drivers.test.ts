import 'fake-indexeddb/auto';
import { DRIVER } from '@/core/library/testing';
import { ReedDatabase } from './database';
import { copyDriver, driversContents, putDriver, removeDriver } from './drivers';
import { seedDemo } from './seed-demo';
import { restoreDemo } from './sheets';

let db: ReedDatabase;
beforeEach(() => {
  db = new ReedDatabase(`drivers-${Math.random()}`);
});
afterEach(() => db.delete());

test('a unit is put in, copied, changed and deleted; what cannot be is refused and nothing changes', async () => {
  await putDriver(DRIVER, db);
  const copy = await copyDriver(DRIVER, 'Another', db);
  await expect(putDriver({ ...DRIVER, model: { ...DRIVER.model, qes: -1 } }, db)).rejects.toThrow(
    /“model\.qes”: must be at least 0\.01/,
  );
  const named = async () => (await driversContents(db)).entries.map((e) => e.name);
  expect(await named()).toEqual(['Another', DRIVER.name]);
  await removeDriver({ id: copy, name: 'Another' }, db);
  expect(await named()).toEqual([DRIVER.name]);
});

test('a damaged unit is named and left as it is; the others are there', async () => {
  await putDriver(DRIVER, db);
  await db.drivers.put({ id: 'bad', document: { ...DRIVER, id: 'bad', model: { fsHz: 'x' } } });
  const { entries, problems } = await driversContents(db);
  expect(entries).toHaveLength(1);
  expect(problems).toEqual([
    { id: 'bad', problem: expect.stringMatching(/loudspeaker cannot be read/) as string },
  ]);
  expect(await db.drivers.count()).toBe(2);
});

test('a unit that a sheet ends in stays', async () => {
  await seedDemo(db);
  const { entries } = await driversContents(db);
  expect(entries).toHaveLength(5);
  const [bass] = entries;
  await expect(removeDriver(bass, db)).rejects.toThrow(/stays: 2 sheets end in it/);
  // One that was changed is set aside when the demo is brought back.
  await putDriver({ ...bass, note: 'measured again' }, db);
  await restoreDemo(db);
  const names = (await driversContents(db)).entries.map((e) => e.name);
  expect(names).toContain(`${bass.name} (yours)`);
  expect(names).toHaveLength(6);
  await restoreDemo(db);
  expect((await driversContents(db)).entries).toHaveLength(6);
});
