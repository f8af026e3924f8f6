import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { ASK_KINDS } from '@/core/design/ask';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { markOutput, movePart, partIn, standOf } from '@/core/drawing/grow/change';
import type { Graft } from '@/core/sheet/graft';
import { outputsOf } from '@/core/sheet/stage';
import { tidied } from '@/core/sheet/tidy';
import { SHAPES } from '@/core/response/prototypes';
import { database } from '@/store/database';
import { newId } from '@/store/ids';
import { undo, redo, editView, sheetOf, useSession } from '@/store/sheet-session';
import {
  bringBack,
  flush,
  leaveDeleted,
  leaveSheet,
  openSheet,
  wouldLose,
} from '@/store/session-storage';
import { listCards } from '@/store/shelf';
import { seedDemo } from '@/store/seed-demo';
import { addSheet, deleteSheet, loadSheet, required, saveSheet } from '@/store/sheets';
import { addChannel, changeChannel, removeChannel, setKnown } from '../bank/bank-actions';
import * as askActions from './actions/ask';
import * as partsActions from './actions/parts';
import * as stagesActions from './actions/stages';
import * as targetsActions from './actions/targets';
import * as wiringActions from './actions/wiring';
import * as controlsActions from './actions/controls';
import * as endsActions from './actions/ends';
import * as readingsActions from './actions/readings';
import * as keepsActions from './actions/keeps';

const act = {
  ...askActions,
  ...partsActions,
  ...stagesActions,
  ...targetsActions,
  ...wiringActions,
  ...controlsActions,
  ...endsActions,
  ...readingsActions,
  ...keepsActions,
};

const present = () => sheetOf(useSession.getState())!;
/** A sheet without what storing changes. */
const held = (sheet = present()) => ({ ...sheet, revision: 0, updatedAt: '' });
const status = () => useSession.getState().status.is;

beforeAll(() => seedDemo());
afterAll(async () => {
  database().close();
  await new Promise((resolve) => setTimeout(resolve, 50));
});
afterEach(async () => {
  database().sheets.hook('updating').unsubscribe(refuse);
  database().sheets.hook('creating').unsubscribe(refuse);
  await leaveSheet();
});

function refuse(): void {
  throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
}
function fillStorage(): void {
  database().sheets.hook('updating', refuse);
  database().sheets.hook('creating', refuse);
}
function freeStorage(): void {
  database().sheets.hook('updating').unsubscribe(refuse);
  database().sheets.hook('creating').unsubscribe(refuse);
}

/** A copy of a demo sheet, opened. */
async function opened(demo: string): Promise<string> {
  const { id } = await addSheet(await required(demo));
  await openSheet(id);
  return id;
}

/** What is stored reads back as what is on screen. */
async function storedAsShown(): Promise<void> {
  await flush();
  const shown = present();
  const stored = await loadSheet(shown.id);
  expect(stored).toEqual({ id: shown.id, sheet: JSON.parse(JSON.stringify(shown)) as unknown });
}

async function until(condition: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !condition(); i++) await new Promise((r) => setTimeout(r, 25));
  expect(condition()).toBe(true);
}

describe('whatever is done to a sheet, what is stored reads back as what is on screen', () => {
  const number = fc.oneof(
    fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
    fc.constantFrom(0, -1, 1e308, 5e-324, 2e7, 61, 1e-9, 4700, 1e-7),
  );
  const text = fc.oneof(
    fc.string(),
    fc.string({ minLength: 110, maxLength: 130, unit: 'grapheme' }),
  );
  const nth = <T>(list: readonly T[], n: number): T | undefined =>
    list[n % Math.max(1, list.length)];
  const stage = (n: number) => nth(present().ways[0].stages, n);
  const onStage = (n: number, doIt: (id: string) => void) => {
    const s = stage(n);
    if (s) doIt(s.id);
  };
  const onPart = (n: number, doIt: (id: string, part: string) => void) =>
    onStage(n, (id) => doIt(id, nth(Object.keys(stage(n)!.parts), n)!));

  const actions: Record<string, (n: number, x: number, t: string) => void | Promise<void>> = {
    kind: (n) => act.changeAsk({ kind: nth(ASK_KINDS, n) }),
    shape: (n) => act.changeAsk({ shape: nth(SHAPES, n) }),
    order: (n) => act.changeAsk({ order: n % 12 }),
    edge: (_, x) => act.changeAsk({ edgeHz: x }),
    gain: (_, x) => act.changeAsk({ gainDb: x }),
    topology: (n) => act.changeTopologies(nth(TOPOLOGIES, n)!),
    title: (_n, _x, t) => act.setTitle(t),
    value: (n, x) => onPart(n, (id, part) => act.setValue(id, part, x)),
    drag: (n, x) => onPart(n, (id, part) => act.setValue(id, part, x, `try ${part}`)),
    reset: (n) => onPart(n, (id, part) => act.resetValue(id, part, n % 2 ? 'exact' : 'nearest')),
    add: (n) => void act.addStage(nth(TOPOLOGIES, n)!, stage(n)?.id ?? null),
    many: (n) => {
      for (let i = 0; i < 15; i++) onStage(n, act.duplicateStage);
    },
    remove: (n) => onStage(n, act.removeStage),
    bypass: (n) => onStage(n, act.toggleBypass),
    move: (n) => onStage(n, (id) => act.moveStage(id, n % 5)),
    target: (n, x) => onStage(n, (id) => act.retargetStage(id, n % 2 ? { f0Hz: x } : { q: x })),
    start: (n, x) => onStage(n, (id) => act.changeStart(id, n % 2 ? { farads: x } : { ohms: x })),
    source: (n, x, t) => act.setSource(n % 2 ? { ohms: x } : n % 3 ? { volts: x } : { name: t }),
    load: (n, x, t) => act.setLoad(n % 2 ? { ohms: x } : n % 3 ? { farads: null } : { name: t }),
    parts: (n) => act.changeParts({ resistors: nth(['E6', 'E96', 'exact'] as const, n) }),
    fit: () => act.fitAgain(),
    pin: (n, x, t) =>
      act.addReading({ measure: { measure: 'level', atHz: x }, ...(n % 2 ? { name: t } : {}) }),
    unpin: (n) => act.removeReading(nth(present().readings, n)?.id ?? ''),
    keep: (_n, _x, t) => act.keepNow(t),
    keepMany: () => {
      for (let i = 0; i < 60; i++) act.keepNow('');
    },
    goBack: (n) => act.goBackTo(nth(present().keeps, n)?.id ?? ''),
    hide: (n) => act.showKeep(nth(present().keeps, n)?.id ?? '', n % 2 === 0),
    drop: (n) => act.removeKeep(nth(present().keeps, n)?.id ?? ''),
    graft: (n) =>
      onPart(n, (id, part) => {
        const kind = nth(['capacitor', 'resistor', 'potentiometer', 'diode'], n)!;
        const grafts: Graft[] = [
          { do: 'across', part, new: { kind } },
          { do: 'in-line', part, new: { kind } },
          { do: 'swap', part, new: { kind } },
          { do: 'short', part },
          { do: 'remove', part },
        ];
        act.graftStage(id, nth(grafts, n)!);
      }),
    ungraft: (n) => onStage(n, act.ungraft),
    tidy: (n) => onStage(n, (id) => act.redraw(id, tidied)),
    moveOnGrid: (n) =>
      onPart(n, (id, part) =>
        act.redraw(id, (d) =>
          movePart(d, part, standOf(partIn(d, part), n % 2 ? 'turned' : { by: [n % 5, -2] })),
        ),
      ),
    output: (n, _x, t) =>
      onPart(n, (id, part) => act.redraw(id, (d) => markOutput(d, { part, pin: 'a' }, t))),
    heard: (n) => onStage(n, (id) => act.setHeard(id, nth(outputsOf(stage(n)!), n)?.name ?? '')),
    model: (n) => onPart(n, (id, part) => act.setModel(id, part, nth(OP_AMPS, n))),
    knob: (n) => onPart(n, (id, part) => act.addControl(id, part, part)),
    turn: (n, x) => act.setControl(nth(present().controls, n)?.id ?? '', x),
    dropKnob: (n) => act.removeControl(nth(present().controls, n)?.id ?? ''),
    channel: (n, x) => {
      const c = nth(present().bank?.channels ?? [], n);
      if (c) changeChannel(c.id, n % 2 ? { centreHz: x } : { gainDb: x });
    },
    known: (n, x) => {
      const c = nth(present().bank?.channels ?? [], n);
      if (c) setKnown(c.id, '1/R2', x);
    },
    moreChannels: () => present().bank && addChannel(),
    lessChannels: (n) => removeChannel(nth(present().bank?.channels ?? [], n)?.id ?? ''),
    view: (n, x) => editView(n % 2 ? { fromHz: x } : { lens: nth(['level', 'map'] as const, n) }),
    undo: () => undo(),
    redo: () => redo(),
    save: () => flush(),
    reload: async () => {
      const { id } = present();
      const before = present();
      await leaveSheet();
      await openSheet(id);
      expect({ ...present(), revision: 0, updatedAt: '' }).toEqual({
        ...(JSON.parse(JSON.stringify(before)) as object),
        revision: 0,
        updatedAt: '',
      });
    },
  };

  test('random edits of every kind, groups, undo, redo, save and reload', async () => {
    const step = fc.tuple(fc.constantFrom(...Object.keys(actions)), fc.nat(500), number, text);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom('demo-speech', 'demo-trim', 'demo-bank', 'demo-steep'),
        fc.array(step, { minLength: 4, maxLength: 14 }),
        async (demo, steps) => {
          await opened(demo);
          for (const [name, n, x, t] of steps) {
            const before = present();
            try {
              await actions[name](n, x, t);
            } catch (error) {
              // A refusal is said in words and changes nothing; groups of actions stop half way.
              if (!(error instanceof ReedError)) throw error;
              expect(error.message).toMatch(/^[“A-Z].*\.$/);
              if (!/many/i.test(name)) expect(held()).toEqual(held(before));
            }
          }
          await storedAsShown();
        },
      ),
      { numRuns: 16 },
    );
  }, 120_000);
});

describe('storage that refuses', () => {
  test('is said, tried again by itself, and asks before the page is closed', async () => {
    const id = await opened('demo-trim');
    fillStorage();
    act.setTitle('kept in mind');
    await flush();
    expect(useSession.getState().status).toMatchObject({
      is: 'failed',
      problem: expect.stringMatching(/storage is full/) as string,
    });
    expect(wouldLose()).toBe(true);
    freeStorage();
    await until(() => status() === 'open');
    expect((await required(id)).title).toBe('kept in mind');
    expect(wouldLose()).toBe(false);
  });

  test('loses nothing when the sheet is left: another can be opened, and it is stored when there is room', async () => {
    const id = await opened('demo-trim');
    fillStorage();
    act.setTitle('left in a hurry');
    await openSheet('demo-speech');
    expect(present().id).toBe('demo-speech');
    expect(wouldLose()).toBe(true);
    await openSheet(id);
    expect(present().title).toBe('left in a hurry');
    await openSheet('demo-speech');
    freeStorage();
    await until(() => !wouldLose());
    expect((await required(id)).title).toBe('left in a hurry');
  });
});

describe('another tab', () => {
  test('wins what it stored first: this tab goes on as a copy by itself, with its history', async () => {
    const id = await opened('demo-trim');
    const theirs = await required(id);
    const later = saveSheet({ ...theirs, title: 'theirs' });
    act.setTitle('mine');
    await later;
    await flush();
    expect(present().title).toBe('mine (this tab’s copy)');
    expect(present().id).not.toBe(id);
    expect(useSession.getState().notice?.text).toMatch(/Another tab has changed “theirs”/);
    expect((await required(id)).title).toBe('theirs');
    expect((await required(present().id)).title).toBe('mine (this tab’s copy)');
    act.keepNow('one more');
    await storedAsShown();
    undo();
    await storedAsShown();
    expect(present().keeps).toHaveLength(0);
  });

  test('and a refused copy is tried again until it is stored', async () => {
    const id = await opened('demo-trim');
    await saveSheet({ ...(await required(id)), title: 'theirs' });
    fillStorage();
    act.setTitle('mine');
    await flush();
    expect(status()).toBe('failed');
    expect(present().title).toBe('mine');
    freeStorage();
    await until(() => status() === 'open');
    expect(present().title).toBe('mine (this tab’s copy)');
  });

  test('deletes it: said at once, not brought back by an edit, and the person chooses', async () => {
    const id = await opened('demo-trim');
    await deleteSheet(id);
    await until(() => status() === 'gone');
    act.setTitle('after all');
    await flush();
    expect(await loadSheet(id)).toBeUndefined();
    expect(wouldLose()).toBe(true);
    await bringBack();
    expect((await required(id)).title).toBe('after all');
    await deleteSheet(id);
    await until(() => status() === 'gone');
    act.setTitle('last words');
    await leaveDeleted();
    const card = (await listCards()).find((c) => c.id === id);
    expect(card).toMatchObject({ title: 'last words' });
    expect(card?.deletedAt).not.toBeNull();
  });

  test('of a newer program is left alone: this one goes on as a copy', async () => {
    const id = await opened('demo-trim');
    const document = { ...present(), version: 99 };
    await database().sheets.update(id, { document });
    act.setTitle('old hand');
    await flush();
    expect(present().title).toBe('old hand (this tab’s copy)');
    expect((await database().sheets.get(id))!.document).toEqual(document);
  });
});

test('a limit is told in the words of its field, and the sheet stays as it was', async () => {
  await opened('demo-speech');
  const before = present();
  expect(() => act.changeAsk({ edgeHz: 2e7 })).toThrow(/^The edge must be at most 10\sMHz\.$/);
  expect(() => act.changeAsk({ gainDb: 61 })).toThrow(/^The gain must be at most 60 dB\.$/);
  expect(() => act.setValue('s1', 'C1', 100)).toThrow(/^C1 must be at most 10\sF\.$/);
  expect(() => editView({ fromHz: 1e-300 })).toThrow(/at least 1\smHz/);
  expect(present()).toEqual(before);
  for (let i = 0; i < 100; i++) act.keepNow(`${newId()}`);
  expect(() => act.keepNow('one too many')).toThrow(/at most 100 keeps: remove one first/);
  for (let i = present().ways[0].stages.length; i < 40; i++)
    act.addStage(topologyOf('buffer'), null);
  expect(() => act.addStage(topologyOf('buffer'), null)).toThrow(/at most 40 stages/);
});
