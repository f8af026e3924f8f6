/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { designOf } from '@/core/sheet/design-of';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import type { Reading, Sheet } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import { usePreferences } from '@/store/preferences';
import { useSheet } from '@/store/sheet-session';
import { AT, closeNow, LOW_PASS, newSheet, openNow, present } from '@/testing/open-sheet';
import { useEvaluations } from './evaluations';
import { ReadingsTable } from './readings-table';
import { resetUi, useUi } from './ui-state';

const READINGS: Reading[] = [
  {
    id: 'edge',
    measure: { measure: 'edge', downDb: 3.0103, side: 'upper', reference: { from: 'plateau' } },
    wanted: { is: 'near', value: 3400, tolerance: 0.03, relative: true },
  },
  { id: 'level', measure: { measure: 'level', atHz: 8000 }, wanted: { is: 'at-most', value: -60 } },
  {
    id: 'lower',
    measure: { measure: 'edge', downDb: 3.0103, side: 'lower', reference: { from: 'plateau' } },
  },
];

/** A sheet with its figures, as the screen has them. */
function shown(change: Partial<Sheet> = {}): Sheet {
  const sheet = newSheet(LOW_PASS, { readings: READINGS, ...change });
  act(() => {
    openNow(sheet);
    const evaluation = new SheetEvaluator().evaluate(sheet);
    useEvaluations.setState({ evaluation, problem: null, stale: false });
  });
  function Open() {
    const { readings, keeps, ask } = useSheet()!;
    return <ReadingsTable readings={readings} keeps={keeps} ask={ask} />;
  }
  render(<Open />);
  return sheet;
}
const row = (name: RegExp) => screen.getByRole('row', { name });
const cells = (name: RegExp) =>
  within(row(name))
    .getAllByRole('cell')
    .map((c) => c.textContent?.replace(/\s+/g, ' '));

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    usePreferences.getState().set({ mark: 'point' });
    useEvaluations.setState({ evaluation: null, problem: null, stale: false });
  }),
);

test('ideal and built stand beside the wish, with the verdict in words and sign', () => {
  shown();
  const [wanted, ideal, built, spread, verdict] = cells(/^Upper edge/);
  expect(spread).toBe('');
  expect(wanted).toBe('3.4 kHz ± 3 %');
  expect(ideal).toMatch(/^3\.4 kHz|^3\.40\d* kHz|^3\.39\d* kHz/);
  expect(built).toMatch(/kHz$/);
  expect(verdict).toMatch(/✓ built|✗ built .* too (high|low); ideal meets it/);
  // Fourth order: 30 dB down at 8 kHz, and 60 were asked for.
  expect(cells(/^Level at 8/)[4]).toMatch(/✗ built 3\d\.\d+ dB too high; ideal misses it too/);
});

test('a reading that a curve does not have says why, and not a number', async () => {
  shown();
  const none = within(row(/^Lower edge/)).getAllByRole('button', { name: /^none: / });
  expect(none).toHaveLength(2);
  expect(none[0].getAttribute('aria-label')).toMatch(/^none: .+\.$/);
  await user.hover(none[0]);
  const reason = none[0].getAttribute('aria-label')!.replace('none: ', '');
  expect((await screen.findByRole('tooltip')).textContent).toBe(reason);
});

test('a shown keep has a column of its own, a hidden one has none', () => {
  const sheet = newSheet(LOW_PASS, { readings: READINGS });
  const [way] = sheet.ways;
  const slower = { ...way, stages: [withValue(way.stages[0], 'R1', 47_000), way.stages[1]] };
  const keepOf = (id: string, on: boolean) => ({
    id,
    name: id.toUpperCase(),
    at: AT,
    shown: on,
    design: designOf({ ...sheet, ways: [slower] }),
  });
  shown({ keeps: [keepOf('a', true), keepOf('b', false)] });
  const heads = screen.getAllByRole('columnheader').map((h) => h.textContent);
  expect(heads).toEqual([
    'Reading',
    'wanted',
    'ideal',
    'built',
    'spread 5–95 %',
    'keep “A”',
    'verdict',
    'Remove',
  ]);
  const [, , built, , keep] = cells(/^Upper edge/);
  expect(keep).toMatch(/Hz$/);
  expect(keep).not.toBe(built);
});

test('the name puts the cursor there, the bin lets it go, the wish opens its form', async () => {
  shown();
  await user.click(within(row(/^Level at 8/)).getByTitle('Put the cursor there'));
  expect(useUi.getState().cursorHz).toBe(8000);
  await user.click(screen.getByRole('button', { name: /^Upper edge.*, wanted: 3\.4/ }));
  expect(await screen.findByRole('textbox', { name: 'Within ± %' })).toBeDefined();
  await user.click(screen.getByRole('button', { name: /^Remove reading Level at 8/ }));
  expect(present().readings.map((r) => r.id)).toEqual(['edge', 'lower']);
  expect(screen.queryByRole('row', { name: /^Level at 8/ })).toBeNull();
});

test('numbers follow the decimal mark', () => {
  shown();
  act(() => usePreferences.getState().set({ mark: 'comma' }));
  expect(cells(/^Upper edge/)[0]).toBe('3,4 kHz ± 3 %');
  expect(cells(/^Level at 8/)[1]).toMatch(/^−\d+,\d+ dB$/);
});

test('verdicts that change are said once things have come to rest', () => {
  jest.useFakeTimers();
  try {
    const sheet = shown();
    act(() => jest.advanceTimersByTime(1000));
    expect(screen.getByRole('status').textContent).toBe('');
    const [way] = sheet.ways;
    const slower = { ...way, stages: [withValue(way.stages[0], 'R1', 100), way.stages[1]] };
    const evaluation = new SheetEvaluator().evaluate({ ...sheet, ways: [slower] });
    act(() => useEvaluations.setState({ evaluation }));
    act(() => jest.advanceTimersByTime(300));
    expect(screen.getByRole('status').textContent).toBe('');
    act(() => jest.advanceTimersByTime(1000));
    expect(screen.getByRole('status').textContent).toMatch(/^Upper edge.*, missed/);
  } finally {
    jest.useRealTimers();
  }
});

test('without readings it says so, and one can be pinned', async () => {
  shown({ readings: [] });
  expect(screen.getByText('Nothing is pinned.')).toBeDefined();
  await user.click(screen.getByRole('button', { name: '+ pin a reading' }));
  await user.click(await screen.findByRole('button', { name: 'Pin this reading' }));
  expect(present().readings).toHaveLength(1);
});
