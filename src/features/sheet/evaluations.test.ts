import { ReedError } from '@/core/errors';
import { makeBank } from '@/core/bank/make';
import { makeSheet } from '@/core/sheet/make';
import type { Evaluation } from '@/core/sheet/evaluate';
import type { Sheet } from '@/core/sheet/schema';
import { adopt, NOTHING_OPEN, setQuietly, useSession } from '@/store/session-state';
import { EMPTY_LIBRARY } from '@/core/library';
import { DRIVER } from '@/core/library/testing';
import { useOpenLibrary } from '@/store/open-library';
import { followOpenSheet, useEvaluations } from './evaluations';

/** The engine as it is asked: every question waits until the test answers it. */
const asked: { sheet: Sheet; answer: (error?: Error) => void }[] = [];
jest.mock('@/workers/engine', () => ({
  engine: () => ({
    evaluate: (sheet: Sheet) =>
      new Promise<Evaluation>((resolve, reject) => {
        const answer = (error?: Error) =>
          error ? reject(error) : resolve({ problems: [], of: sheet } as unknown as Evaluation);
        asked.push({ sheet, answer });
      }),
  }),
}));

const sheet = (id: string): Sheet =>
  makeSheet({
    id,
    title: id,
    at: '2026-11-23T08:00:00.000Z',
    ask: { kind: 'low-pass', shape: 'butterworth', order: 2, edgeHz: 2000, gainDb: 0 },
  });
/** As an edit does it, without the store behind it. */
const retitle = (title: string) =>
  setQuietly({ content: { ...useSession.getState().content!, title } });
const shown = () =>
  (useEvaluations.getState().evaluation as unknown as { of: Sheet } | null)?.of.title ?? null;
/** Answer the one question that is open. */
async function answer(error?: Error): Promise<void> {
  expect(asked).toHaveLength(1);
  asked.shift()!.answer(error);
  await jest.advanceTimersByTimeAsync(0);
}

beforeEach(() => {
  jest.useFakeTimers();
  followOpenSheet();
});
afterEach(async () => {
  setQuietly(NOTHING_OPEN);
  while (asked.length > 0) await answer();
  jest.useRealTimers();
});

test('edits that come faster than answers: each answer is shown, the last is of the newest', async () => {
  adopt(sheet('a'));
  const pictures: (string | null)[] = [];
  for (let n = 1; n <= 12; n++) {
    retitle(`edit ${n}`);
    if (n % 3 === 0) {
      await answer();
      pictures.push(shown());
    }
  }
  await answer();
  expect(pictures).toEqual(['a', 'edit 3', 'edit 6', 'edit 9']);
  expect(shown()).toBe('edit 12');
  expect(asked).toHaveLength(0);
});

test('figures are greyed when their answer is late, and no longer once it is there', async () => {
  adopt(sheet('a'));
  await answer();
  retitle('b');
  await jest.advanceTimersByTimeAsync(299);
  expect(useEvaluations.getState().stale).toBe(false);
  await jest.advanceTimersByTimeAsync(2);
  expect(useEvaluations.getState().stale).toBe(true);
  await answer();
  expect(useEvaluations.getState().stale).toBe(false);
  expect(shown()).toBe('b');
});

test('no figure of one sheet stands beside the values of another', async () => {
  adopt(sheet('a'));
  await answer();
  adopt(sheet('b'));
  expect(shown()).toBeNull();
  adopt(sheet('c'));
  await answer(); // that of b, which is no longer open
  expect(shown()).toBeNull();
  await answer();
  expect(shown()).toBe('c');
});

test('a sheet that goes on as a copy keeps its figures', async () => {
  adopt(sheet('a'));
  await answer();
  setQuietly({ frame: { ...useSession.getState().frame!, id: 'copy' } });
  expect(shown()).toBe('a');
  expect(asked).toHaveLength(0);
});

test('a refusal takes the place of the figures, and the next answer that of the refusal', async () => {
  adopt(sheet('a'));
  await answer(new ReedError('singular', 'No unique solution.'));
  expect(useEvaluations.getState()).toMatchObject({
    evaluation: null,
    problem: 'No unique solution.',
  });
  retitle('b');
  await answer();
  expect(useEvaluations.getState()).toMatchObject({ problem: null, stale: false });
  expect(shown()).toBe('b');
});

test('a bank asks for itself', async () => {
  adopt(
    makeBank({ id: 'bank', title: 'bank', at: '2026-11-23T08:00:00.000Z', centresHz: [100, 200] }),
  );
  await jest.advanceTimersByTimeAsync(0);
  expect(asked).toHaveLength(0);
});

describe('a path into a loudspeaker', () => {
  const spoken = (id: string): Sheet => {
    const plain = sheet(id);
    const to = { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false } as const;
    return { ...plain, ways: [{ ...plain.ways[0], to }] };
  };
  const library = (drivers: readonly (typeof DRIVER)[]) => ({ ...EMPTY_LIBRARY, drivers });
  const modelAsked = () => (asked[0]?.sheet.ways[0].to as { model?: unknown } | undefined)?.model;
  afterEach(() => useOpenLibrary.setState({ library: EMPTY_LIBRARY, loading: false }));

  test('is asked about once the loudspeaker is at hand, and again when it changes', async () => {
    adopt(spoken('a'));
    useOpenLibrary.setState({ loading: true });
    retitle('waiting');
    while (asked.length > 0) await answer();
    retitle('still waiting');
    expect(asked).toHaveLength(0);
    useOpenLibrary.setState({ library: library([DRIVER]), loading: false });
    expect(modelAsked()).toEqual(DRIVER.model);
    await answer();
    expect(shown()).toBe('still waiting');
    const other = { ...DRIVER, model: { ...DRIVER.model, reOhms: 4 } };
    useOpenLibrary.setState({ library: library([other]) });
    expect(modelAsked()).toEqual(other.model);
    // Changed again before the answer: the last one shown is that of the newest.
    useOpenLibrary.setState({ library: library([DRIVER]) });
    await answer();
    expect(modelAsked()).toEqual(DRIVER.model);
    await answer();
    expect(asked).toHaveLength(0);
  });
});
