/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type * as Here from '@/testing/engine';
import userEvent from '@testing-library/user-event';
import { EMPTY_LIBRARY } from '@/core/library';
import { TAKE } from '@/core/library/testing';
import { flipFlop } from '@/core/circuit/testing/flip-flop';
import { stageOfCircuit } from '@/core/sheet/own-stage';
import { designOf } from '@/core/sheet/design-of';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { makeStage } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { useOpenLibrary } from '@/store/open-library';
import { useSheet } from '@/store/sheet-session';
import { AT, closeNow, LOW_PASS, newSheet, openNow, present } from '@/testing/open-sheet';
import { useTold } from '../../shell/tell';
import { useEvaluations } from '../evaluations';
import { LensPanel } from '../lens-panel';
import { resetUi, setUi, useUi } from '../ui-state';
import { useEvaluated } from '../use-evaluation';
import { LENSES, lensOf } from './index';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
// Nothing has a size here: every picture is given one.
jest.mock('@/ui/chart/use-size', () => ({
  useSize: () => [{ current: null }, { width: 640, height: 400 }],
}));

const evaluate = (sheet: Sheet) =>
  useEvaluations.setState({
    evaluation: new SheetEvaluator().evaluate(sheet),
    problem: null,
    stale: false,
  });

function shown(lens: string, change: Partial<Sheet> = {}): Sheet {
  const plain = newSheet(LOW_PASS, change);
  const sheet = { ...plain, view: { ...plain.view, lens } };
  act(() => {
    openNow(sheet);
    evaluate(sheet);
  });
  function Open() {
    return <LensPanel sheet={useSheet()!} bar={false} />;
  }
  render(<Open />);
  return sheet;
}
const paths = (id: string) => document.querySelectorAll(`[data-layer="${id}"]`);
const all = () => document.body.innerHTML;
const legend = () =>
  within(screen.getByRole('list', { name: 'Layers' }))
    .getAllByRole('listitem')
    .map((item) => item.textContent?.trim());

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useOpenLibrary.setState({ library: EMPTY_LIBRARY, problems: [] });
    useEvaluations.setState({ evaluation: null, problem: null, stale: false });
    useTold.setState({ waiting: [], begun: false });
  }),
);

test.each(LENSES.map((l) => [l.id]))(
  '%s shows a picture without a number that is none',
  async (id) => {
    shown(id);
    await waitFor(() => {
      const picture = document.querySelector('[data-picture]');
      expect(picture?.querySelector('svg, table, p')).toBeTruthy();
      expect(picture?.textContent).not.toMatch(/Working out|Looking for/);
    });
    expect(all()).not.toMatch(/NaN|Infinity|undefined(?!-ticks)/);
    expect(document.querySelector('[role="tabpanel"]')).not.toBeNull();
  },
);

test.each(['level', 'phase', 'delay', 'time', 'harmonics', 'map'])(
  '%s stays as it is for a circuit that cannot be solved, and says why',
  async (lens) => {
    const sheet = newSheet();
    const [way] = sheet.ways;
    const to = { is: 'driver', name: 'Woofer', driver: 'nowhere', inverted: false } as const;
    shown(lens, { ways: [{ ...way, to }] });
    const problems = () => useEvaluations.getState().evaluation?.problems.join() ?? '';
    expect(problems()).toMatch(/“Woofer” is not among the drivers/);
    if (lens === 'level' || lens === 'phase') expect(paths('ideal')).toHaveLength(1);
    else await waitFor(() => expect(all()).toMatch(/is not among the drivers/));
    expect(paths('built')).toHaveLength(0);
  },
);

describe('the level', () => {
  const keepOf = (sheet: Sheet, id: string, on: boolean) => ({
    id,
    name: id,
    at: AT,
    shown: on,
    design: designOf(sheet),
  });

  test('lists and draws what is wanted, ideal, built, keeps and takes', () => {
    const plain = newSheet();
    act(() =>
      useOpenLibrary.setState({
        library: { takes: [{ ...TAKE, name: 'first sweep' }], drivers: [], drawer: [] },
        problems: [],
      }),
    );
    shown('level', {
      keeps: [keepOf(plain, 'a', true), keepOf(plain, 'b', false)],
      boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id, 'gone'], note: '' }],
    });
    expect(legend()).toEqual(['wanted', 'ideal', 'built', 'keep “a”', 'first sweep']);
    for (const id of ['ideal', 'built', 'keep:a', `take ${TAKE.id}`, 'wanted 0'])
      expect(paths(id)).toHaveLength(1);
    expect(paths('keep:b')).toHaveLength(0);
  });

  test('the cursor reads every layer, goes by the keys, and pins', async () => {
    shown('level');
    const cursor = screen.getByRole('slider', { name: 'Cursor frequency' });
    act(() => setUi({ cursorHz: 3400 }));
    expect(cursor.getAttribute('aria-valuetext')).toMatch(
      /^3\.4\skHz, ideal −3\.01 dB, built −\d\.\d\d dB$/,
    );
    act(() => cursor.focus());
    await user.keyboard('{ArrowRight}');
    expect(useUi.getState().cursorHz).toBeCloseTo(3400 * 2 ** (1 / 48), 6);
    await user.keyboard('{Shift>}{ArrowLeft}{/Shift}');
    expect(useUi.getState().cursorHz).toBeCloseTo(3400 * 2 ** (1 / 48 - 1 / 3), 6);
    await user.keyboard('{Enter}');
    expect(useUi.getState().pinning).toBe(true);
    await user.keyboard('{Escape}');
    expect(useUi.getState().cursorHz).toBeNull();
    expect(cursor.getAttribute('aria-valuetext')).toBe('no cursor');
  });

  test('an edit draws one path anew and leaves the frame', () => {
    const sheet = shown('level');
    const [ideal] = paths('ideal');
    const [frame] = document.querySelectorAll('.grid');
    const before = [ideal.getAttribute('d'), paths('built')[0].getAttribute('d')];
    const [way] = sheet.ways;
    const [first, ...rest] = way.stages;
    const parts = { ...first.parts, R1: { ...first.parts.R1, value: 22_000 } };
    act(() => evaluate({ ...sheet, ways: [{ ...way, stages: [{ ...first, parts }, ...rest] }] }));
    expect(paths('ideal')[0]).toBe(ideal);
    expect(ideal.getAttribute('d')).toBe(before[0]);
    expect(paths('built')[0].getAttribute('d')).not.toBe(before[1]);
    expect(document.querySelectorAll('.grid')[0]).toBe(frame);
  });

  test('what a part that is pointed at does is tried on the picture', async () => {
    shown('level');
    act(() => setUi({ pointedPart: 's1/R1' }));
    await waitFor(() => expect(paths('trial 0')).toHaveLength(1));
    expect(paths('trial 1')).toHaveLength(1);
    act(() => setUi({ pointedPart: null }));
    await waitFor(() => expect(paths('trial 0')).toHaveLength(0));
  });
});

test('phase is followed on, or wrapped within half a turn', () => {
  shown('phase');
  const followed = paths('built')[0].getAttribute('d')!;
  act(() => setUi({ phaseWrapped: true }));
  const wrapped = paths('built')[0].getAttribute('d')!;
  expect(followed.match(/M/g)).toHaveLength(1);
  expect(wrapped.match(/M/g)!.length).toBeGreaterThan(1);
});

test('a circuit that can rest elsewhere says where', async () => {
  const [way] = newSheet(LOW_PASS).ways;
  shown('rest', {
    ways: [{ ...way, stages: [stageOfCircuit(flipFlop(), { id: 's1', input: 'in' })] }],
  });
  const said = await screen.findByText(/It can stand in 2 other states too/);
  expect(said.textContent).toMatch(/at \d\.\d{3} V/);
});

test('a lens of another program shows as the first', () => {
  shown('hologram');
  expect(lensOf('hologram')).toBe(LENSES[0]);
  expect(paths('built')).toHaveLength(1);
});

describe('the map', () => {
  const figures = () => present().ways[0].stages[0].target!;

  test('a pair is moved by the keys: its frequency and its Q', async () => {
    shown('map');
    const handles = await screen.findAllByRole('slider');
    const before = figures();
    const named = (name: RegExp) =>
      handles.find((h) => name.test(h.getAttribute('aria-label') ?? ''))!;
    const f0 = named(/^(Corner|f₀|f0).* of stage 1/i);
    act(() => f0.focus());
    fireEvent.keyDown(f0, { key: 'ArrowUp' });
    expect(figures().f0Hz / before.f0Hz).toBeCloseTo(1.02, 6);
    expect(present().ways[0].stages[0].origin).toBe('hand');
    const q = named(/^Q.* of stage 1/);
    fireEvent.keyDown(q, { key: 'ArrowDown', shiftKey: true });
    expect(figures().q! / before.q!).toBeCloseTo(1 / 1.1, 6);
  });

  test('what a stage cannot be is said once, and it stays as it was', async () => {
    const rc = makeStage('s1', topologyOf('rc-low-pass'), { f0Hz: 1000 }, newSheet().parts, 'hand');
    shown('map', { ways: [{ ...newSheet().ways[0], stages: [rc] }] });
    await waitFor(() =>
      expect(document.querySelector('[aria-label="Map of poles and zeros"]')).not.toBeNull(),
    );
    expect(figures()).toEqual({ f0Hz: 1000 });
  });
});

describe('at rest', () => {
  test('every op-amp’s pins have their volts', async () => {
    shown('rest');
    const table = await screen.findByRole('table', { name: 'At rest, built' });
    expect(within(table).getAllByRole('row').length).toBeGreaterThan(2);
    expect(within(table).getAllByRole('rowheader')[0].textContent).toMatch(/^A\d/);
  });

  test('of passive parts alone it says that nothing has a rest of its own', async () => {
    const rc = makeStage('s1', topologyOf('rc-low-pass'), { f0Hz: 1000 }, newSheet().parts, 'hand');
    shown('rest', { ways: [{ ...newSheet().ways[0], stages: [rc] }] });
    expect(await screen.findByText(/passive parts alone/)).toBeDefined();
  });
});

test('harmonics: another wave, another fundamental, another cut-off', async () => {
  shown('harmonics');
  const pictures = () =>
    screen
      .queryAllByRole('img')
      .map((i) => i.getAttribute('aria-label')!)
      .filter((label) => label.includes(': '));
  await waitFor(() => expect(pictures()).toHaveLength(2));
  const before = pictures()[0];
  expect(before).toMatch(/harmonic 1 .* dB/);
  await user.click(screen.getByText('Square'));
  await waitFor(() => expect(pictures()[0]).not.toBe(before));
  expect(pictures()[0]).toMatch(/harmonic 2 -72\.0 dB/);
});

test('whoever asks for something of the evaluation is drawn again just when that changes', () => {
  let draws = 0;
  function Watcher() {
    useEvaluated((e) => e?.readings[0]?.results.ideal);
    draws++;
    return null;
  }
  const sheet = newSheet();
  const evaluator = new SheetEvaluator();
  const say = (s: Sheet) =>
    act(() =>
      useEvaluations.setState({ evaluation: evaluator.evaluate(s), problem: null, stale: false }),
    );
  say(sheet);
  render(<Watcher />);
  const [way] = sheet.ways;
  const [first, ...rest] = way.stages;
  const parts = { ...first.parts, R1: { ...first.parts.R1, value: 22_000 } };
  say({ ...sheet, ways: [{ ...way, stages: [{ ...first, parts }, ...rest] }] });
  expect(draws).toBe(1);
});
