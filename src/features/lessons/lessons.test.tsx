/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { withValue } from '@/core/sheet/stage';
import { entryOf } from '@/store/book';
import { database } from '@/store/database';
import { learned, sheetOfLesson } from '@/store/lesson-sheets';
import { lessonOfSheet, readLessons, useLessons } from '@/store/lessons';
import { leaveSheet, openSheet } from '@/store/session-storage';
import { edit, undo, useSheet } from '@/store/sheet-session';
import { deleteSheet } from '@/store/sheets';
import type * as Here from '@/testing/engine';
import { setUi, useUi } from '../sheet/ui-state';
import { LessonPanel } from './lesson-panel';
import { LessonsScreen } from './lessons-screen';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
const push = jest.fn();
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push }),
  usePathname: () => '/lessons',
}));

const user = userEvent.setup({ delay: null, pointerEventsCheck: 0 });
afterEach(() => leaveSheet());

const setPart = (part: string, value: number) =>
  edit(({ ways: [way] }) => ({
    ways: [{ ...way, stages: [withValue(way.stages[0], part, value)] }],
  }));

/** The panel beside whatever is open. */
function Beside({ id }: { id: string }) {
  const sheet = useSheet();
  return sheet ? <LessonPanel id={id} sheet={sheet} /> : null;
}

test('a lesson is begun on a sheet of its own, which answers; what was learned stands in the book', async () => {
  render(<LessonsScreen />);
  await screen.findByText('0 of 15 passed');
  await user.click(screen.getByRole('button', { name: 'Begin: Where an RC begins to cut' }));
  await waitFor(() => expect(push).toHaveBeenCalled());
  const id = useLessons.getState().sheets['rc-edge'];
  expect(push).toHaveBeenCalledWith(`/sheet/${id}`);
  expect(lessonOfSheet(useLessons.getState(), id)).toBe('rc-edge');

  await openSheet(id);
  render(<Beside id="rc-edge" />);
  const panel = await screen.findByRole('complementary', { name: 'Lesson' });
  await within(panel).findByText('1.592 kHz');
  expect(within(panel).queryByText('That is it')).toBeNull();
  act(() => setPart('R1', 31_800));
  await within(panel).findByText('That is it');
  await screen.findByText('1 of 15 passed');
  const line = await entryOf('lesson-rc-edge', database());
  expect(line).toMatchObject({ kind: 'lesson', sheet: id, name: 'Where an RC begins to cut' });
  expect(line.changes[0]).toMatchObject({
    what: 'Upper edge at 500\u00a0Hz',
    after: '500.5\u00a0Hz',
  });
  expect(line.after).toBeDefined();

  // Gone back on, the sheet answers otherwise; what was learned stays learned.
  act(undo);
  await within(panel).findByText('1.592 kHz');
  within(panel).getByText('Passed before');
});

test('pointing at a weight lights the parts that make it, and a part its weight', async () => {
  const id = await sheetOfLesson('state-variable');
  await openSheet(id);
  render(<Beside id="state-variable" />);
  // By the names on the drawing: the damping resistor is the sixth there.
  const damping = await screen.findByRole('button', { name: '1/Q: made by R6 and R7' });
  screen.getByText(/R3 and R4 together move f0, R6 moves Q/);
  await user.hover(damping);
  expect(useUi.getState().litParts).toEqual(['s1/R4', 's1/R5']);
  await user.unhover(damping);
  expect(useUi.getState().litParts).toEqual([]);
  await user.click(damping);
  expect(useUi.getState().partId).toBe('s1/R4');
  act(() => setUi({ partId: null, pointedPart: 's1/C1' }));
  await waitFor(() =>
    expect(
      screen.getByRole('button', { name: '−ω₀/s: made by R3 and C1' }).getAttribute('class'),
    ).toMatch(/lit/),
  );
});

test('a lesson goes on where it was begun; on a sheet that was deleted it begins anew', async () => {
  const first = await sheetOfLesson('rc-load');
  expect(await sheetOfLesson('rc-load')).toBe(first);
  await deleteSheet(first);
  const second = await sheetOfLesson('rc-load');
  expect(second).not.toBe(first);
  expect(await sheetOfLesson('rc-load', true)).not.toBe(second);
  expect((await learned()).has('rc-load')).toBe(false);
});

test('what is stored of lessons is read as far as it can be', () => {
  expect(readLessons({ sheets: { 'rc-edge': 'x' }, later: 1 })).toEqual({
    sheets: { 'rc-edge': 'x' },
  });
  for (const foreign of [null, 3, { sheets: { a: 1 } }, { sheets: 'x' }])
    expect(readLessons(foreign)).toEqual({ sheets: {} });
});
