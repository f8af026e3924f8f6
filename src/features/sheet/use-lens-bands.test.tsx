/** @jest-environment jsdom */
import '@/testing/dom';
import { act, renderHook } from '@testing-library/react';
import { ReedError } from '@/core/errors';
import type { LensBandsInput } from '@/core/jobs/lens-bands';
import type { CurveBand } from '@/core/lenses/bands';
import { usePreferences } from '@/store/preferences';
import { newSheet } from '@/testing/open-sheet';
import { LATE } from './spreads';
import { bandLayers, useLensBands, type LensBandsShown } from './use-lens-bands';

/** The engine as it is asked: the test hands bands over. */
interface Question {
  input: LensBandsInput;
  signal: AbortSignal;
  progress: (bands: LensBandsShown) => void;
  answer: (bands: LensBandsShown) => void;
}
const mockAsked: Question[] = [];
jest.mock('@/workers/engine', () => ({
  engine: () => ({
    run: (_: string, input: LensBandsInput, options: Pick<Question, 'signal' | 'progress'>) =>
      new Promise((answer, fail) => {
        mockAsked.push({ input, ...options, answer });
        options.signal.addEventListener('abort', () => fail(new ReedError('stopped', 'Stopped.')));
      }),
  }),
}));

const A = newSheet(undefined, { title: 'A' });
const B = { ...A, title: 'B' };
const C = { ...A, title: 'C' };
const band = (width: number): LensBandsShown => ({
  delay: {
    at: Float64Array.of(1, 2),
    low: Float64Array.of(-width, -width),
    high: Float64Array.of(width, width),
  },
});
const settle = (act_: () => void) =>
  act(async () => {
    act_();
    await new Promise((resolve) => setTimeout(resolve, 0));
  });
const shown = () =>
  renderHook(({ sheet }) => useLensBands(sheet, 'delay'), { initialProps: { sheet: A } });
const titles = () => mockAsked.map((q) => q.input.sheet.title);

beforeEach(() => (mockAsked.length = 0));
afterEach(() => act(() => usePreferences.setState({ spread: true })));

test('bands are there as soon as the first are, and are refined', async () => {
  const { result } = shown();
  expect(result.current).toEqual({});
  await settle(() => mockAsked[0].progress(band(2)));
  expect(result.current).toEqual(band(2));
  await settle(() => mockAsked[0].answer(band(1)));
  expect(result.current).toEqual(band(1));
  expect(mockAsked).toHaveLength(1);
});

test('while a value is dragged each state shows its first bands, then the newest is asked about', async () => {
  const { result, rerender } = shown();
  rerender({ sheet: B });
  rerender({ sheet: C });
  // What has shown nothing yet goes on: else a quick drag would never show a band.
  expect(mockAsked[0].signal.aborted).toBe(false);
  await settle(() => mockAsked[0].progress(band(3)));
  expect(result.current).toEqual(band(3));
  expect(mockAsked[0].signal.aborted).toBe(true);
  expect(titles()).toEqual(['A', 'C']);
  await settle(() => mockAsked[1].progress(band(2)));
  expect(result.current).toEqual(band(2));
  await settle(() => rerender({ sheet: B }));
  expect(mockAsked[1].signal.aborted).toBe(true);
  expect(titles()).toEqual(['A', 'C', 'B']);
});

test('what is of other values for too long is taken away', async () => {
  const { result, rerender } = shown();
  await settle(() => mockAsked[0].answer(band(1)));
  rerender({ sheet: B });
  expect(result.current).toEqual(band(1));
  await act(() => new Promise((resolve) => setTimeout(resolve, LATE + 60)));
  expect(result.current).toEqual({});
  await settle(() => mockAsked[1].answer(band(2)));
  expect(result.current).toEqual(band(2));
});

test('nothing is asked while tolerances are not to be shown, nor after the lens is left', async () => {
  void act(() => usePreferences.setState({ spread: false }));
  const { result, unmount } = shown();
  expect(mockAsked).toHaveLength(0);
  await settle(() => usePreferences.setState({ spread: true }));
  expect(titles()).toEqual(['A']);
  await settle(() => mockAsked[0].progress(band(1)));
  await settle(() => usePreferences.setState({ spread: false }));
  expect(result.current).toEqual({});
  expect(mockAsked[0].signal.aborted).toBe(true);
  await settle(() => usePreferences.setState({ spread: true }));
  unmount();
  expect(mockAsked.map((q) => q.signal.aborted)).toEqual([true, true]);
});

test('a band is drawn where there is one', () => {
  expect(bandLayers(undefined)).toEqual([]);
  const own = band(1).delay as CurveBand;
  expect(bandLayers(own)).toEqual([
    {
      kind: 'band',
      id: 'spread',
      name: 'spread',
      look: 'spread',
      x: own.at,
      low: own.low,
      high: own.high,
    },
  ]);
});
