import 'fake-indexeddb/auto';
import { stockLine } from '@/core/library/stock-words';
import { database } from './database';
import {
  addToDrawer,
  changeInDrawer,
  drawerContents,
  putBack,
  removeFromDrawer,
  takeFromDrawer,
} from './drawer';

const FILM = stockLine('10x 22n 5 % film in box 2');
const METAL = stockLine('100x 4k7 1 % metal film');

const entries = async () => (await drawerContents()).entries;

beforeEach(() => database().drawer.clear());

test('parts lie by kind and value, and the same again is more of it', async () => {
  await addToDrawer([METAL, FILM, stockLine('2x 10n film'), FILM]);
  await addToDrawer([{ ...METAL, quantity: 5 }]);
  expect((await entries()).map((e) => [e.kind, e.value, e.quantity])).toEqual([
    ['capacitor', 10e-9, 2],
    ['capacitor', 22e-9, 20],
    ['resistor', 4700, 105],
  ]);
});

test('what differs in tolerance, make or place is another entry', async () => {
  await addToDrawer([FILM, { ...FILM, tolerance: 0.01 }, { ...FILM, place: 'box 3' }]);
  expect(await entries()).toHaveLength(3);
});

test('what is out of bounds is refused, and nothing of the rest is put in', async () => {
  await expect(addToDrawer([FILM, { ...METAL, quantity: -1 }])).rejects.toThrow(/quantity/);
  expect(await entries()).toEqual([]);
});

test('pieces are taken for all parts or for none, and put back', async () => {
  await addToDrawer([FILM, METAL]);
  const [film, metal] = await entries();
  const taken = new Map([
    [film.id, 4],
    [metal.id, 101],
  ]);
  await expect(takeFromDrawer(taken)).rejects.toThrow(/there are 100 .* and 101 are needed/);
  expect((await entries()).map((e) => e.quantity)).toEqual([10, 100]);
  await takeFromDrawer(new Map([[film.id, 4]]));
  await takeFromDrawer(new Map([[film.id, -1]]));
  expect((await entries()).map((e) => e.quantity)).toEqual([7, 100]);
});

test('an entry is changed, removed and brought back as it was', async () => {
  await addToDrawer([FILM]);
  const [film] = await entries();
  await changeInDrawer(film.id, { quantity: 3, place: 'the tin' });
  await expect(changeInDrawer(film.id, { quantity: 1.5 })).rejects.toThrow(/whole number/);
  const [changed] = await entries();
  expect(changed).toMatchObject({ quantity: 3, place: 'the tin' });
  await removeFromDrawer(film.id);
  expect(await entries()).toEqual([]);
  await expect(changeInDrawer(film.id, { quantity: 1 })).rejects.toThrow(/no longer in the drawer/);
  await putBack(changed);
  expect(await entries()).toEqual([changed]);
});

test('a damaged entry is told, and the others stand', async () => {
  await addToDrawer([FILM]);
  await database().drawer.put({ id: 'bad', document: { format: 'jaunty-reed/stock', value: 'x' } });
  const { entries: good, problems } = await drawerContents();
  expect(good).toHaveLength(1);
  expect(problems).toEqual([
    { id: 'bad', problem: expect.stringMatching(/cannot be read/) as string },
  ]);
});
