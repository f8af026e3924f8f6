import 'fake-indexeddb/auto';
import { act } from '@testing-library/react';
import type * as Here from '@/testing/engine';
import { makeBank } from '@/core/bank/make';
import { preferredNumbers, type SeriesName } from '@/core/quantity/series';
import { database } from '@/store/database';
import { addToDrawer, drawerContents } from '@/store/drawer';
import { valuesOf } from '@/core/sheet/stage';
import { sessionHistory } from '@/store/session-state';
import { undo, useSession } from '@/store/sheet-session';
import { usePreferences } from '@/store/preferences';
import { bankPicture } from '@/core/bank/picture';
import { demoMade } from '@/testing/demo';
import { AT, closeNow, newSheet, openNow, present } from '@/testing/open-sheet';
import { setOverlap } from '../bank/bank-actions';
import { jointsOf } from '@/core/sheet/joints';
import { remediesFor } from '@/core/sheet/remedies';
import { changeAsk } from './actions/ask';
import { applyRemedy } from './actions/joints';
import { setValue } from './actions/parts';
import { fitParts, followDesigns, useFitting } from './fitting';
import type { SpreadResult } from '@/core/spread/spread';
import { engineHere } from '@/testing/engine';
import { countMany } from './spread-many';
import { followSpread, LIVE_BOARDS, useSpreads } from './spreads';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

const values = () => present().ways[0].stages.map((s) => valuesOf(s));

async function until(is: () => boolean): Promise<void> {
  const deadline = Date.now() + 15_000;
  while (!is()) {
    if (Date.now() > deadline) throw new Error('It never came to that.');
    await act(() => new Promise((resolve) => setTimeout(resolve, 20)));
  }
}

beforeEach(() => {
  act(() => void openNow());
});
afterEach(() => act(() => closeNow()));

describe('fitting', () => {
  test('is one step of history, with both errors told', async () => {
    const before = values();
    await act(() => fitParts({}));
    const { outcome, running } = useFitting.getState();
    expect(running).toBe(false);
    expect(outcome!.fitted.worstDb).toBeLessThan(outcome!.nearest.worstDb);
    expect(values()).not.toEqual(before);
    act(() => undo());
    expect(values()).toEqual(before);
  });

  test('leaves a value that was typed, unless all may be changed', async () => {
    act(() => setValue('s1', 'R1', 12_300));
    await act(() => fitParts({}));
    expect(values()[0].R1).toBe(12_300);
    await act(() => fitParts({ all: true }));
    expect(values()[0].R1).not.toBe(12_300);
  });

  test('of a sheet that is changed meanwhile is not put in, and says so', async () => {
    const running = act(() => fitParts({}));
    act(() => setValue('s1', 'C1', 3.3e-9));
    await running;
    expect(values()[0].C1).toBe(3.3e-9);
    expect(useFitting.getState().problem).toMatch(/was changed while/);
  });

  test('follows a changed ask within its step; what undo brings back is left as it was', async () => {
    followDesigns();
    const before = values();
    act(() => changeAsk({ edgeHz: 5000 }));
    const rounded = values();
    await until(() => JSON.stringify(values()) !== JSON.stringify(rounded));
    expect(sessionHistory().pastStates).toHaveLength(1);
    act(() => undo());
    await act(() => new Promise((resolve) => setTimeout(resolve, 300)));
    expect(values()).toEqual(before);
  });
});

test('every channel of a bank is fitted after an edit, within its step', async () => {
  act(() => void openNow(demoMade(AT).find((sheet) => sheet.bank)));
  followDesigns();
  const all = () => JSON.stringify(present().ways.map((w) => w.stages.map((s) => valuesOf(s))));
  act(() => setOverlap(4));
  const rounded = all();
  await until(() => all() !== rounded);
  expect(sessionHistory().pastStates).toHaveLength(1);
  const peaks = (await bankPicture(present())).channels.map((c) => c.peakDb);
  // Rounded one by one they are apart by more than a decibel.
  expect(Math.max(...peaks) - Math.min(...peaks)).toBeLessThan(0.5);
});

test('channels of a bank share the drawer: none takes what another has taken', async () => {
  const piece = (kind: string, value: number, quantity: number) => ({
    kind,
    value,
    quantity,
    name: '',
    note: '',
  });
  const decades = (kind: string, series: SeriesName, from: number[], quantity: number) =>
    from.flatMap((decade) =>
      preferredNumbers(series).map((n) => piece(kind, (n * decade) / 10, quantity)),
    );
  await database().drawer.clear();
  await addToDrawer([
    ...decades('resistor', 'E24', [1e2, 1e3, 1e4, 1e5, 1e6], 1),
    ...decades('capacitor', 'E6', [1e-10, 1e-9, 1e-8, 1e-7], 2),
  ]);
  const centresHz = [500, 520, 540];
  act(() => void openNow(makeBank({ id: 'test', title: 'Three', at: AT, centresHz, stages: 1 })));
  await act(() => fitParts({}, true));
  expect(useFitting.getState()).toMatchObject({ running: false, problem: null });
  const taken = new Map<string, number>();
  for (const { stages } of present().ways)
    for (const { parts } of stages)
      for (const { stock } of Object.values(parts))
        if (stock !== undefined) taken.set(stock, (taken.get(stock) ?? 0) + 1);
  const { entries } = await drawerContents();
  expect(taken.size).toBeGreaterThan(12);
  for (const [id, count] of taken)
    expect(count).toBeLessThanOrEqual(entries.find((e) => e.id === id)!.quantity);
});

test('a remedy of a joint, and the values that go with it, are one step of history', async () => {
  const before = present();
  const names = () => present().ways[0].stages.map((s) => s.topology);
  const way = present().ways[0];
  const loaded = { ...present(), source: { name: 'Weak', ohms: 20_000, volts: 1 }, ways: [way] };
  act(() => void openNow(loaded));
  const [joint] = jointsOf(loaded, 0, 1000);
  const remedy = remediesFor(loaded, joint, 20).find((r) => r.id === 'buffer')!;
  act(() => applyRemedy(remedy));
  const rounded = values();
  expect(names()[0]).toBe('buffer');
  await until(() => JSON.stringify(values()) !== JSON.stringify(rounded));
  expect(sessionHistory().pastStates).toHaveLength(1);
  act(() => undo());
  expect(present().ways).toEqual(before.ways);
});

describe('the spread', () => {
  test('is counted for the sheet that is open, and anew when a value changes', async () => {
    followSpread();
    await until(() => useSpreads.getState().spread?.boards === LIVE_BOARDS);
    const { spread, readings } = useSpreads.getState();
    expect(readings).toEqual(present().readings.map((r) => r.id));
    expect(spread!.readings[0]!.p5).toBeLessThan(spread!.readings[0]!.p95);

    act(() => setValue('s1', 'R1', 22_000));
    const { content } = useSession.getState();
    await until(() => {
      const now = useSpreads.getState();
      return now.spread !== spread && !now.counting && !now.stale;
    });
    expect(useSession.getState().content).toBe(content);
    expect(useSpreads.getState().spread!.readings[0]!.p50).not.toBe(spread!.readings[0]!.p50);
  });

  test('goes when it is switched off, and with its sheet', async () => {
    followSpread();
    await until(() => useSpreads.getState().spread !== null);
    act(() => usePreferences.getState().set({ spread: false }));
    expect(useSpreads.getState().spread).toBeNull();
    act(() => usePreferences.getState().set({ spread: true }));
    await until(() => useSpreads.getState().spread !== null);
    act(() => closeNow());
    expect(useSpreads.getState().spread).toBeNull();
  });

  test('of a great many is added up from portions, and can be stopped', async () => {
    const sheet = openNow(
      newSheet({ kind: 'low-pass', shape: 'butterworth', order: 1, edgeHz: 1000 }),
    );
    const input = { sheet, seed: 1, drawer: [] };
    const known = await engineHere.run('spread', { ...input, boards: 1000 });
    const counts: number[] = [];
    const options = {
      signal: new AbortController().signal,
      progress: (n: number) => counts.push(n),
    };
    const many = await countMany({ ...input, boards: 7500 }, known as SpreadResult, options);
    expect(many.boards).toBe(7500);
    expect(counts[counts.length - 1]).toBe(7500);
    const [few, all] = [known as SpreadResult, many].map((s) => s.readings[0]!);
    expect(all.p50 / few.p50).toBeCloseTo(1, 2);
    expect(all.p5).not.toBe(few.p5);
    const stop = new AbortController();
    const stopped = countMany({ ...input, boards: 50_000 }, known as SpreadResult, {
      signal: stop.signal,
      progress: () => stop.abort(),
    });
    await expect(stopped).rejects.toThrow(/Stopped/);
  });
});
