/** @jest-environment jsdom */
import '@/testing/dom';
import { act, renderHook } from '@testing-library/react';
import { EMPTY_LIBRARY } from '@/core/library';
import { DRIVER } from '@/core/library/testing';
import type { LensRequest } from '@/core/lenses/lens';
import type { Sheet } from '@/core/sheet/schema';
import { useOpenLibrary } from '@/store/open-library';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { useLens } from './use-lens';

/** The engine as it is asked: every question waits until the test answers it. */
interface Question {
  sheet: Sheet;
  request: LensRequest;
  signal: AbortSignal;
  answer: (picture: unknown) => void;
  fail: (error: Error) => void;
}
const mockAsked: Question[] = [];
jest.mock('@/workers/engine', () => ({
  engine: () => ({
    run: (
      _: string,
      input: Pick<Question, 'sheet' | 'request'>,
      { signal }: { signal: AbortSignal },
    ) =>
      new Promise((answer, fail) => {
        mockAsked.push({ ...input, signal, answer, fail });
        signal.addEventListener('abort', () => fail(new Error('stopped')));
      }),
  }),
}));

const A = newSheet(LOW_PASS, { title: 'A' });
const B = { ...A, title: 'B' };
const C = { ...A, title: 'C' };
const picture = (of: string) => ({ layers: [], problems: [], of });
const shown = (start: Sheet = A, request: LensRequest = { lens: 'delay' }) =>
  renderHook(({ sheet, asks }: { sheet: Sheet; asks: LensRequest }) => useLens(sheet, asks), {
    initialProps: { sheet: start, asks: request },
  });
const settle = (act_: () => void) =>
  act(async () => {
    act_();
    await new Promise((resolve) => setTimeout(resolve, 0));
  });
const titles = () => mockAsked.map((q) => q.sheet.title);

beforeEach(() => (mockAsked.length = 0));
afterEach(() => useOpenLibrary.setState({ library: EMPTY_LIBRARY }));

test('a picture is that of the sheet once its answer is there, and until then of an earlier state', async () => {
  const { result, rerender } = shown();
  expect(result.current).toMatchObject({ picture: null, stale: true });
  await settle(() => mockAsked[0].answer(picture('A')));
  expect(result.current).toEqual({ picture: picture('A'), problem: null, stale: false });
  rerender({ sheet: B, asks: { lens: 'delay' } });
  expect(result.current).toMatchObject({ picture: picture('A'), stale: true });
  await settle(() => mockAsked[1].answer(picture('B')));
  expect(result.current).toMatchObject({ picture: picture('B'), stale: false });
});

test('one question is under way at a time, and states passed over are never asked about', async () => {
  const { result, rerender } = shown();
  rerender({ sheet: B, asks: { lens: 'delay' } });
  rerender({ sheet: C, asks: { lens: 'delay' } });
  expect(titles()).toEqual(['A']);
  await settle(() => mockAsked[0].answer(picture('A')));
  expect(titles()).toEqual(['A', 'C']);
  expect(result.current.stale).toBe(true);
  await settle(() => mockAsked[1].answer(picture('C')));
  expect(result.current).toMatchObject({ picture: picture('C'), stale: false });
  expect(titles()).toEqual(['A', 'C']);
});

test('a failure is said in its place, and the next state is asked about as if nothing had been', async () => {
  const { result, rerender } = shown();
  await settle(() => mockAsked[0].fail(new Error('No unique solution.')));
  expect(result.current).toMatchObject({ picture: null, problem: 'No unique solution.' });
  rerender({ sheet: B, asks: { lens: 'delay' } });
  await settle(() => mockAsked[1].answer(picture('B')));
  expect(result.current).toEqual({ picture: picture('B'), problem: null, stale: false });
});

test('another request is another picture, an equal one is none', async () => {
  const { result, rerender } = shown(A, { lens: 'time' });
  await settle(() => mockAsked[0].answer(picture('time')));
  rerender({ sheet: A, asks: { lens: 'time' } });
  expect(titles()).toHaveLength(1);
  rerender({ sheet: A, asks: { lens: 'map' } });
  expect(result.current.stale).toBe(true);
  expect(mockAsked[1].request).toEqual({ lens: 'map' });
});

test('a lens that is no longer looked through is stopped, and says nothing afterwards', async () => {
  const { unmount } = shown();
  const errors = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  unmount();
  expect(mockAsked[0].signal.aborted).toBe(true);
  await settle(() => mockAsked[0].answer(picture('A')));
  expect(errors).not.toHaveBeenCalled();
  errors.mockRestore();
});

test('a path into a loudspeaker is asked about with its model, and again when that changes', async () => {
  const [way] = A.ways;
  const to = { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false } as const;
  const spoken = { ...A, ways: [{ ...way, to }] };
  const { result } = shown(spoken);
  const model = (n: number) => (mockAsked[n].sheet.ways[0].to as { model?: unknown }).model;
  expect(model(0)).toBeUndefined();
  await settle(() => mockAsked[0].answer(picture('bare')));
  act(() => useOpenLibrary.setState({ library: { ...EMPTY_LIBRARY, drivers: [DRIVER] } }));
  expect(result.current.stale).toBe(true);
  expect(model(1)).toEqual(DRIVER.model);
  await settle(() => mockAsked[1].answer(picture('spoken')));
  expect(result.current).toMatchObject({ picture: picture('spoken'), stale: false });
});
