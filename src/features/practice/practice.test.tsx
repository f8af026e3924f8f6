/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import made from '@/core/demo/made.json';
import { deal } from '@/core/practice/deal';
import { faultParts } from '@/core/rig/fault';
import type { Sheet } from '@/core/sheet/schema';
import { goOn, readPractice, recordOf, usePractice } from '@/store/practice';
import type * as Here from '@/testing/engine';
import { Practice } from './practice-screen';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

const SHEETS = made as unknown as Sheet[];
const FIRST = deal({ deal: 1, rung: 0, board: 0 }, SHEETS);
const [CULPRIT] = faultParts(FIRST.fault);

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  // A list that closes takes no pointer for as long as it takes to fade.
  user = userEvent.setup({ delay: null, pointerEventsCheck: 0 });
  act(() => {
    usePractice.setState({ deal: 1, records: {} });
  });
});

const now = () => recordOf(usePractice.getState(), '1/0/0');

async function blame(part: string) {
  await user.type(screen.getByRole('combobox', { name: 'Which part is it' }), part);
  await user.click((await screen.findAllByTitle(part)).at(-1)!);
  await user.click(screen.getByRole('button', { name: 'It is this' }));
}

test('a board is measured at a cost, the wrong part blamed, then the right one; the way to it is shown', async () => {
  render(<Practice sheets={SHEETS} />);
  await user.click(screen.getByRole('button', { name: 'Measure, for 6' }));
  screen.getByText('So far it cost 6.');
  const log = screen.getByRole('table', { name: 'What was measured' });
  within(log).getByRole('row', { name: /^a sweep, the output/ });

  const good = FIRST.sound.circuit.parts.find(
    ({ id, kind }) => kind === 'resistor' && id !== CULPRIT && !FIRST.sound.fixed.has(id),
  )!.id;
  await blame(good);
  screen.getByText(`Not ${good}: taken out, measured, and put back, for 10.`);
  screen.getByText('So far it cost 16.');
  expect(now().state).toBe('open');

  await blame(CULPRIT);
  expect(now().state).toBe('solved');
  await screen.findByText(/It cost you 16; the way below costs \d+/, {}, { timeout: 20_000 });
  screen.getByRole('list', { name: 'Suspects' });
  screen.getByText('1 of 30 found out, at 16 in all');
  screen.getByRole('button', { name: 'Not there, or bridged, board 1: found out at 16' });
});

test('who comes back finds everything as it was; what cannot be read is as if it had not been', () => {
  goOn('1/0/0', () => ({ state: 'shown' }));
  goOn('1/0/1', () => ({ asked: [{ is: 'part', part: 'R1' }] }));
  const stored: unknown = JSON.parse(localStorage.getItem('jaunty-reed-practice')!);
  const { state } = stored as { state: { records: Record<string, unknown> } };
  expect(readPractice(state)).toEqual(usePractice.getState());
  expect(
    readPractice({ deal: -3, records: { ...state.records, '1/0/2': { asked: 'all of it' } } }),
  ).toEqual({ records: usePractice.getState().records });
  for (const bad of [null, 7, 'x', [], { records: 3 }])
    expect(readPractice(bad).records ?? {}).toEqual({});

  // The first board that is not over, with what was measured of it.
  render(<Practice sheets={SHEETS} />);
  screen.getByText('So far it cost 8.');
});

test('other boards are dealt, and those before are kept', async () => {
  goOn('1/0/0', () => ({ state: 'shown' }));
  render(<Practice sheets={SHEETS} />);
  await user.click(screen.getByRole('button', { name: 'Deal other boards' }));
  expect(usePractice.getState().deal).toBe(2);
  screen.getByRole('button', { name: 'Not there, or bridged, board 1: untouched' });
  expect(now().state).toBe('shown');
});
