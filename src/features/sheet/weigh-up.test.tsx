/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ReedError } from '@/core/errors';
import { candidatesOf } from '@/core/weigh/candidates';
import { weighOne, type WeighRefusal, type WeighRow } from '@/core/weigh/weigh';
import { usePreferences } from '@/store/preferences';
import { DEFAULT_PRICES } from '@/core/weigh/prices';
import { closeNow, LOW_PASS, openNow, present, stages } from '@/testing/open-sheet';
import { resetUi, useUi } from './ui-state';
import { WeighUp } from './weigh-up';

/** What the worker hands over, one after the other, when the test says so. */
interface Weighing {
  signal: AbortSignal;
  progress: (row: WeighRow | WeighRefusal) => void;
  done: () => void;
  fail: (error: Error) => void;
}
const mockWeighings: Weighing[] = [];
jest.mock('@/workers/engine', () => ({
  engine: () => ({
    run: (_: string, __: unknown, options: Pick<Weighing, 'signal' | 'progress'> = {} as never) =>
      new Promise<void>((resolve, reject) => {
        mockWeighings.push({ ...options, done: resolve, fail: reject });
        options.signal?.addEventListener('abort', () =>
          reject(Object.assign(new Error('Stopped on request.'), { code: 'stopped' })),
        );
      }),
  }),
}));
jest.mock('@/ui/chart/use-size', () => ({
  useSize: () => [{ current: null }, { width: 1600, height: 600 }],
}));

const ASK = { ...LOW_PASS, order: 2 };
const CANDIDATES = candidatesOf(ASK, { shapes: ['butterworth', 'bessel'], orders: [2], most: 6 });
const ROWS = CANDIDATES.map((c) => weighOne(c, { boards: 40 })).filter(
  (r): r is WeighRow => !('refusal' in r),
);
const present_ = () => mockWeighings[mockWeighings.length - 1];

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  mockWeighings.length = 0;
  openNow();
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    usePreferences.getState().set({ prices: DEFAULT_PRICES });
  }),
);

function shown() {
  return render(<WeighUp open ask={ASK} opAmp="ideal" />);
}
const weighed = async (from = 0) => {
  await waitFor(() => expect(mockWeighings.length).toBeGreaterThan(0));
  await act(async () => {
    for (const row of ROWS.slice(from)) present_().progress(row);
    present_().done();
    await Promise.resolve();
  });
};
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .filter((r) => within(r).queryByRole('checkbox'));

test('rows come as they are ready; at the end it is said how many there are', async () => {
  shown();
  await waitFor(() => expect(mockWeighings.length).toBe(1));
  expect(screen.getByRole('button', { name: 'Stop' })).toBeDefined();
  act(() => present_().progress(ROWS[0]));
  expect(rows()).toHaveLength(1);
  await weighed(1);
  expect(screen.getByText(`${ROWS.length} designs, each solved`)).toBeDefined();
  expect(screen.queryByRole('button', { name: 'Stop' })).toBeNull();
});

test('ticked designs are laid over the picture, three at most, each by a line of its own', async () => {
  shown();
  await weighed();
  expect(ROWS.length).toBeGreaterThan(3);
  for (const box of screen.getAllByRole('checkbox').slice(0, 4)) await user.click(box);
  const { laidOver } = useUi.getState();
  expect(laidOver).toHaveLength(3);
  expect(new Set(laidOver.map((l) => l.look)).size).toBe(3);
  expect(screen.getByRole('button', { name: 'Tick one to take it' })).toHaveProperty(
    'disabled',
    true,
  );
});

test('one that is ticked can be taken: the sheet is designed by its ask', async () => {
  shown();
  await weighed();
  const other = ROWS.findIndex((r) => r.topology !== stages()[0].topology);
  await user.click(screen.getAllByRole('checkbox')[other]);
  await user.click(screen.getByRole('button', { name: /^Take / }));
  expect(present().ask).toMatchObject({ order: 2, topology: ROWS[other].topology });
  expect(stages()).toHaveLength(1);
  expect(useUi.getState().laidOver).toEqual([]);
});

test('prices are the person’s own, and change the costs at once', async () => {
  shown();
  await weighed();
  const costs = () =>
    rows().map((r) =>
      within(r)
        .getAllByRole('cell')
        .map((c) => c.textContent)
        .join('|'),
    );
  const before = costs();
  await user.click(screen.getByRole('button', { name: 'Prices' }));
  const field = await screen.findByRole('spinbutton', { name: 'Op-amp' });
  await user.clear(field);
  await user.type(field, '99');
  expect(usePreferences.getState().prices['op-amp']).toBe(99);
  expect(costs()).not.toEqual(before);
});

test('what cannot be built is listed with its reason', async () => {
  shown();
  await waitFor(() => expect(mockWeighings.length).toBe(1));
  await act(async () => {
    present_().progress({ id: 'bessel 9', refusal: 'No capacitor is so small.' } as WeighRefusal);
    present_().done();
    await Promise.resolve();
  });
  await user.click(screen.getByRole('button', { name: '1 cannot be built' }));
  expect((await screen.findByRole('listitem')).textContent).toBe(
    'bessel 9: No capacitor is so small.',
  );
});

test('a stop keeps what is there; a failure is said', async () => {
  const { unmount } = shown();
  await waitFor(() => expect(mockWeighings.length).toBe(1));
  act(() => present_().progress(ROWS[0]));
  await user.click(screen.getByRole('button', { name: 'Stop' }));
  expect(present_().signal.aborted).toBe(true);
  expect(rows()).toHaveLength(1);
  unmount();
  shown();
  await waitFor(() => expect(mockWeighings.length).toBe(2));
  await act(async () => {
    present_().fail(new ReedError('design', 'Nothing can be built at 1 GHz.'));
    await Promise.resolve();
  });
  expect(screen.getByRole('alert').textContent).toBe('Nothing can be built at 1 GHz.');
});

test('another ask stops the weighing of the last one', async () => {
  const { rerender } = shown();
  await waitFor(() => expect(mockWeighings.length).toBe(1));
  rerender(<WeighUp open ask={{ ...ASK, edgeHz: 50 }} opAmp="ideal" />);
  await waitFor(() => expect(mockWeighings.length).toBe(2));
  expect(mockWeighings[0].signal.aborted).toBe(true);
});

test('closed by its cross', async () => {
  shown();
  act(() => useUi.setState({ weighing: true }));
  await user.click(screen.getByRole('button', { name: 'Close the weigh-up' }));
  expect(useUi.getState().weighing).toBe(false);
});
