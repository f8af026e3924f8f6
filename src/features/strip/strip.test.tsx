/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { cellOf } from '@/core/cells';
import type { Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';
import { edit, undo, useSheet } from '@/store/sheet-session';
import type * as Here from '@/testing/engine';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { Stripboard } from './strip-screen';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));

const sheet = () => {
  const cell = cellOf('rc-knob')!;
  return voiceSheet({
    id: 'knob',
    title: 'Knob',
    at: AT,
    cell,
    ...cell.usual,
    source: { name: 'Oscillator', ohms: 1000, volts: 1 },
    load: { name: 'Amplifier', ohms: 47_000 },
  });
};
function Open() {
  return <Stripboard sheet={useSheet()!} />;
}
const part = (name: string) => screen.getByRole('button', { name: new RegExp(`^${name}:`) });
const at = (id: string) => present().stripboard!.parts[id];

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  act(() => void openNow(sheet()));
});
afterEach(() => {
  jest.restoreAllMocks();
  act(() => {
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  });
});

/** The board that the first test found: a search of seconds, which ends the same each time. */
let found: Sheet['stripboard'];
async function planned() {
  if (found) act(() => void openNow({ ...sheet(), stripboard: found }));
  render(<Open />);
  if (found) return;
  await user.click(screen.getByRole('button', { name: 'Plan it' }));
  await waitFor(() => expect(present().stripboard).toBeDefined());
  found = present().stripboard;
}

test('a board is planned, right along its copper, and lists what there is to cut and to link', async () => {
  await planned();
  expect(screen.getByRole('status').textContent).toMatch(/copper joins what the circuit joins/);
  expect(screen.getByRole('banner').textContent).toMatch(
    /\d+ strips of \d+ holes, \d+ by \d+ mm; \d+ cuts, \d+ links/,
  );
  expect(screen.getAllByText(/^row \d+, hole \d+$/).length).toBeGreaterThan(0);
  for (const name of ['R1', 'C1', 'A1', 'wire in', 'wire out', 'wire ground'])
    expect(part(name)).toBeTruthy();
  await user.click(screen.getByText('Copper side'));
  expect(screen.getByRole('group', { name: /seen from the copper/ })).toBeTruthy();
});

test('parts are moved, turned and stretched by keys, checked at once, and put back by undo', async () => {
  await planned();
  // What follows within a second is one step of history: no machine is too slow for it here.
  jest.spyOn(Date, 'now').mockReturnValue(Date.now());
  const before = at('R1');
  act(() => part('R1').focus());
  fireEvent.keyDown(part('R1'), { key: 'ArrowRight' });
  expect(at('R1').at).toEqual({ row: before.at.row, col: before.at.col + 1 });
  fireEvent.keyDown(part('R1'), { key: 't' });
  expect(at('R1').turn).toBe((before.turn + 1) % 4);
  fireEvent.keyDown(part('R1'), { key: '+' });
  expect(at('R1').span).toBe(Math.min(7, before.span + 1));
  // Where another part already is, it says so.
  act(() =>
    edit(({ stripboard: b }) => ({
      stripboard: { ...b!, parts: { ...b!.parts, R1: { ...b!.parts.C1 } } },
    })),
  );
  expect(screen.getByRole('status').textContent).toMatch(/want the same hole/);
  act(undo);
  act(undo);
  expect(at('R1')).toEqual(before);
  expect(screen.getByRole('status').textContent).toMatch(/copper joins/);
});

test('a board is cut to another size by typing it, in whole holes', async () => {
  await planned();
  const strips = () => screen.getByRole('button', { name: /^Strips:/ });
  await user.click(strips());
  await user.keyboard('30{Enter}');
  expect(present().stripboard!.rows).toBe(30);
  await user.click(strips());
  await user.keyboard('7.5{Enter}');
  expect(screen.getByText(/from 2 to 120 strips, in whole numbers/)).toBeTruthy();
  await user.keyboard('{Escape}');
  await user.click(strips());
  await user.keyboard('2{Enter}');
  expect(screen.getAllByText(/stands beside the board/).length).toBeGreaterThan(0);
  act(undo);
  expect(screen.getByText(/copper joins what the circuit joins/)).toBeTruthy();
});

test('a circuit that has changed since is told, not shown on the old board', async () => {
  await planned();
  act(() =>
    edit(({ stripboard: b }) => {
      const parts = { ...b!.parts };
      delete parts.R1;
      return { stripboard: { ...b!, parts } };
    }),
  );
  expect(screen.getByRole('alert').textContent).toMatch(/R1 has come. Plan it again/);
  expect(screen.queryByRole('status')).toBeNull();
});
