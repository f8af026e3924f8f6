import 'fake-indexeddb/auto';
import { stockLine } from '@/core/library/stock-words';
import { freshBoard } from '@/core/sheet/boards';
import { closeNow, openNow, present } from '@/testing/open-sheet';
import { followBoards } from './built-boards';
import { database } from './database';
import { addToDrawer, drawerContents } from './drawer';
import { edit, redo, undo } from './sheet-session';

const refused = jest.fn();
const quantity = async () => (await drawerContents()).entries[0].quantity;
/** What was begun in the database is over. */
const settled = () => new Promise((resolve) => setTimeout(resolve, 60));

beforeEach(async () => {
  await database().drawer.clear();
  await addToDrawer([stockLine('10x 22n 5 % film')]);
  openNow();
  followBoards(refused);
  refused.mockClear();
});
afterEach(() => closeNow());

async function build(pieces: number): Promise<void> {
  const [{ id }] = (await drawerContents()).entries;
  edit((c) => ({ boards: [...c.boards, { ...freshBoard(c.boards), took: { [id]: pieces } }] }));
  await settled();
}

test('what a built board takes is counted off, and comes back whichever way it is undone', async () => {
  await build(4);
  expect(await quantity()).toBe(6);
  undo();
  await settled();
  expect(await quantity()).toBe(10);
  redo();
  await settled();
  expect(await quantity()).toBe(6);
  edit(() => ({ boards: [] }));
  await settled();
  expect(await quantity()).toBe(10);
  expect(refused).not.toHaveBeenCalled();
});

test('a board that takes more than there is, is not marked as built', async () => {
  await build(4);
  await build(7);
  expect(refused).toHaveBeenCalledTimes(1);
  expect(present().boards).toHaveLength(1);
  expect(await quantity()).toBe(6);
});

test('other edits leave the drawer alone', async () => {
  edit(() => ({ title: 'Another name' }));
  await settled();
  expect(await quantity()).toBe(10);
});
