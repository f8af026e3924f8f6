import 'fake-indexeddb/auto';
import { TOPOLOGIES } from '@/core/topologies';
import { redo, undo } from '@/store/sheet-session';
import { closeNow, openNow, present, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { EXPORTS } from './exports';
import { IN_ROW, LENSES } from './lenses';
import { sheetCommands } from './sheet-commands';
import { resetUi, setUi, useUi } from './ui-state';

const toShelf = jest.fn();
const COMMANDS = sheetCommands({
  undo,
  redo,
  toShelf,
  toParts: jest.fn(),
  toBoard: jest.fn(),
  toBench: jest.fn(),
  toBook: jest.fn(),
  toReport: jest.fn(),
});
const run = (id: string) => COMMANDS.find((c) => c.id === id)!.run();
const ids = () => stages().map((s) => s.id);

beforeEach(() => openNow());
afterEach(() => {
  resetUi();
  closeNow();
  useTold.setState({ waiting: [], begun: false });
});

test('every action has a name of its own, and no two answer to one key', () => {
  expect(new Set(COMMANDS.map((c) => c.id)).size).toBe(COMMANDS.length);
  expect(new Set(COMMANDS.map((c) => c.title)).size).toBe(COMMANDS.length);
  const keys = COMMANDS.flatMap((c) => c.keys ?? []);
  expect(new Set(keys).size).toBe(keys.length);
  for (const { title } of COMMANDS) expect(title).toMatch(/^\p{Lu}/u);
});

test('every topology can be put in, every lens looked through, every export written by name', () => {
  for (const { id } of TOPOLOGIES) expect(COMMANDS.some((c) => c.id === `add-${id}`)).toBe(true);
  for (const { id } of EXPORTS) expect(COMMANDS.some((c) => c.id === `export-${id}`)).toBe(true);
  LENSES.forEach(({ id }, n) => {
    expect(COMMANDS.find((c) => c.id === `lens-${id}`)!.keys).toBe(
      n < IN_ROW ? `${n + 1}` : undefined,
    );
    run(`lens-${id}`);
    expect(present().view.lens).toBe(id);
  });
});

test('stages are gone through in a ring', () => {
  const [first, second] = ids();
  setUi({ wholePath: true, partId: `${first}/R1` });
  run('next');
  expect(useUi.getState()).toMatchObject({ stageId: second, wholePath: false, partId: null });
  run('next');
  expect(useUi.getState().stageId).toBe(first);
  run('previous');
  expect(useUi.getState().stageId).toBe(second);
});

test('what is done to a stage is done to the chosen one', () => {
  const [first, second] = ids();
  setUi({ stageId: second });
  run('bypass');
  expect(stages()[1].bypassed).toBe(true);
  run('left');
  expect(ids()).toEqual([second, first]);
  run('right');
  run('duplicate');
  expect(stages()).toHaveLength(3);
  run('remove');
  expect(ids()).not.toContain(second);
  run('undo');
  expect(ids()).toContain(second);
  run('redo');
  expect(ids()).not.toContain(second);
});

test('a stage is put in after the chosen one, and chosen', () => {
  const [first] = ids();
  setUi({ stageId: first });
  run('add-twin-t-notch');
  expect(stages()[1].topology).toBe('twin-t-notch');
  expect(useUi.getState().stageId).toBe(stages()[1].id);
});

test('one too many is said in words', () => {
  while (stages().length < 40) run('duplicate');
  run('duplicate');
  run('add-twin-t-notch');
  expect(stages()).toHaveLength(40);
  expect(useTold.getState().waiting).toHaveLength(2);
  expect(useTold.getState().waiting[0]).toMatchObject({
    content: expect.stringMatching(/at most 40 stages/) as string,
  });
});

test('forms and sentences are opened, the weigh-up to and fro', () => {
  run('keep');
  run('fit');
  run('pin');
  run('graft');
  run('whole');
  expect(useUi.getState()).toMatchObject({
    keeping: true,
    fitting: true,
    pinning: true,
    grafting: { do: 'put' },
    wholePath: true,
  });
  run('weigh');
  expect(useUi.getState().weighing).toBe(true);
  run('weigh');
  expect(useUi.getState().weighing).toBe(false);
  run('shelf');
  expect(toShelf).toHaveBeenCalledTimes(1);
});

test('without stages, what needs one does nothing', () => {
  openNow({ ...present(), ways: [{ ...present().ways[0], stages: [] }] });
  const before = present();
  for (const id of ['next', 'previous', 'bypass', 'duplicate', 'left', 'right', 'remove', 'graft'])
    run(id);
  expect(present()).toEqual(before);
  run('add-rc-low-pass');
  expect(stages()).toHaveLength(1);
});
