/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { EMPTY_PLAN } from '@/core/plan/plan';
import { freshBoard } from '@/core/sheet/boards';
import { drawerContents } from '@/store/drawer';
import { addTask, changePlan, markOrdered, sizeTask, usePlan, wantBoards } from '@/store/plan';
import { required, addSheet, saveSheet } from '@/store/sheets';
import type * as Here from '@/testing/engine';
import { newSheet } from '@/testing/open-sheet';
import { Boards } from '../parts-list/boards';
import { PlanScreen } from './plan-screen';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/plan',
}));

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null, pointerEventsCheck: 0 });
  usePlan.setState(EMPTY_PLAN);
});

const group = (name: string) => screen.findByRole('region', { name });

test('boards wanted bring what the drawer lacks; what is ordered comes into it, and they can be built', async () => {
  const sheet = await addSheet(newSheet(), 'Low-pass for the plan');
  render(<PlanScreen />);
  act(() => wantBoards(sheet.id, 2, 0));
  const parts = await group('Parts to order');
  const [capacitors] = await within(parts).findAllByText(/^capacitor /);
  expect(capacitors.parentElement!.textContent).toMatch(/Low-pass for the plan/);
  within(await group('Can be begun now')).getByText(/^Order \d+ parts of \d+ kinds$/);
  within(await group('Waits for something')).getByText('Build 2 boards');

  await user.click(within(parts).getByRole('button', { name: 'Ordered elsewhere …' }));
  await user.click(await screen.findByRole('button', { name: 'All of it is ordered' }));
  await within(parts).findByText('On the way');
  expect(screen.queryByText(/^Order \d+ parts/)).toBeNull();
  await screen.findByText(/kinds of parts on the way$/);

  await user.click(within(parts).getByRole('button', { name: 'All of it is here' }));
  await within(parts).findByText(/The drawer has all that the boards of this plan need/);
  expect((await drawerContents()).entries.length).toBeGreaterThan(1);
  expect(usePlan.getState().ordered).toEqual({});
  await waitFor(() =>
    expect(screen.queryByRole('region', { name: 'Waits for something' })).toBeNull(),
  );
  within(await group('Can be begun now')).getByText('Build 2 boards');
});

test('a board at the bench comes by itself; its size is changed, it is ticked, and unticked', async () => {
  const made = await addSheet(newSheet(), 'Built one');
  const stored = await required(made.id);
  await saveSheet({ ...stored, boards: [freshBoard([])] });
  render(<PlanScreen />);
  const hours = await screen.findByRole('spinbutton', {
    name: 'Hours for Build Board 1 of Built one',
  });
  await user.clear(hours);
  await user.type(hours, '4');
  await waitFor(() => expect(usePlan.getState().hours[`build ${made.id} b1`]).toBe(4));

  await user.click(screen.getByRole('checkbox', { name: 'Done: Build Board 1' }));
  await waitFor(() => expect(screen.queryByText('Build Board 1')).toBeNull());
  within(await group('Can be begun now')).getByText('Measure Board 1');
});

test('from the parts list as many boards are put on the plan as it is for', async () => {
  const sheet = await addSheet(newSheet(), 'Two of them');
  const line = { kind: 'resistor', value: 1e4, names: ['R1'], each: 1, stock: [] };
  const onHand = { line, needed: 2, onHand: 0, lacking: 2, priceEach: null, take: [] };
  render(<Boards sheet={sheet} lines={[onHand]} boards={2} />);
  await user.click(screen.getByRole('button', { name: 'Put 2 boards on the plan' }));
  expect(usePlan.getState().wanted[sheet.id]?.boards).toBe(2);
});

test('what a plan cannot be is refused, and it stays as it was', () => {
  addTask({ title: 'Drill the front', hours: 1, after: [] });
  const before = usePlan.getState();
  expect(() => addTask({ title: '  ', hours: 1, after: [] })).toThrow(
    /“own\[1\]\.title” must not be empty/,
  );
  expect(() => sizeTask('order', -3)).toThrow(/“hours\.order” must/);
  expect(() => markOrdered('x', { pieces: 0, until: null })).toThrow(/pieces/);
  expect(() => changePlan(() => ({ waits: { order: { for: 'x', until: 'soon' } } }))).toThrow(
    /must be a day, as 2026-12-03/,
  );
  expect(usePlan.getState()).toBe(before);
});
