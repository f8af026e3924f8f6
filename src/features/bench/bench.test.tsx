/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { hallSpeaker } from '@/core/demo/crossovers';
import { useOpenLibrary } from '@/store/open-library';
import { measureRigBoard } from '@/core/bench/rig-board';
import { takeTable } from '@/core/library/take-table';
import { undo, useSheet } from '@/store/sheet-session';
import type * as Here from '@/testing/engine';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { Bench } from './bench-screen';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));

function Open() {
  return <Bench sheet={useSheet()!} />;
}

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null, pointerEventsCheck: 0 });
  act(() => void openNow());
});
afterEach(() => {
  act(() => {
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  });
});

const suspects = () => screen.findByRole('list', { name: 'Suspects' }, { timeout: 10_000 });

async function chosen(list: string, option: string) {
  await user.click(await screen.findByRole('combobox', { name: list }));
  const found = await screen.findAllByTitle(option);
  await user.click(found[found.length - 1]);
}

async function pasted(text: string, name = 'evening') {
  await user.click(screen.getByRole('button', { name: 'Bring in a take' }));
  const dialog = await screen.findByRole('dialog');
  await user.type(within(dialog).getByLabelText('Name of the take'), name);
  await user.click(within(dialog).getByLabelText('Readings'));
  await user.paste(text);
  await user.click(within(dialog).getByRole('button', { name: 'Take it' }));
  return dialog;
}

test('a simulated board is swept, its culprit named, and taken as measured', async () => {
  render(<Open />);
  await user.click(screen.getByRole('button', { name: 'Sweep the board' }));
  await user.type(await screen.findByLabelText('What is wrong with it'), 'C3=*1.4');
  await user.click(await screen.findByRole('button', { name: 'Sweep it' }));
  const list = await suspects();
  const first = within(list).getAllByRole('button')[0];
  expect(first.textContent).toMatch(/^C3, /);
  expect(present().boards).toHaveLength(1);
  expect(present().boards[0].takes).toHaveLength(1);
  const table = await screen.findByRole('table', { name: 'Readings of all boards' });
  within(table).getByRole('columnheader', { name: 'Board 1' });
  expect(within(table).getByRole('row', { name: /^Level at 1/ }).textContent).toMatch(
    /Level at 1.*\d/,
  );
  await user.click(screen.getByRole('button', { name: /as measured$/ }));
  expect(Object.keys(present().boards[0].values)).toHaveLength(1);
  await screen.findByText(/^Nothing is wrong/, {}, { timeout: 10_000 });
  act(undo);
  expect(present().boards[0].values).toEqual({});
  expect(screen.queryByText(/^Nothing is wrong/)).toBeNull();
});

test('a take that is typed goes to the board that is chosen; notes stay with theirs', async () => {
  render(<Open />);
  await user.click(screen.getByRole('button', { name: '+ board' }));
  await user.click(screen.getByRole('button', { name: '+ board' }));
  await user.type(screen.getByLabelText('Notes on Board 2'), 'from the drawer');
  await pasted(takeTable(measureRigBoard(present(), { seed: 5, fault: '', noiseDb: 0.1 })));
  await waitFor(() => expect(present().boards[1].takes).toHaveLength(1));
  expect(present().boards[0].takes).toEqual([]);
  await suspects();
  await user.click(screen.getByRole('button', { name: 'Board 1' }));
  expect(screen.queryByRole('list', { name: 'Suspects' })).toBeNull();
  expect(screen.getByLabelText<HTMLTextAreaElement>('Notes on Board 1').value).toBe('');
  await user.click(screen.getByRole('button', { name: 'Board 2' }));
  expect(screen.getByLabelText<HTMLTextAreaElement>('Notes on Board 2').value).toBe(
    'from the drawer',
  );
  await user.click(screen.getByRole('button', { name: 'Remove evening' }));
  expect(present().boards[1].takes).toEqual([]);
});

test('what is asked for is measured, typed in and weighed; the culprit is made up for by another part, or used in the sheet', async () => {
  render(<Open />);
  await pasted(takeTable(measureRigBoard(present(), { seed: 5, fault: 'R4=*1.4', noiseDb: 0.1 })));
  await suspects();
  await user.click(screen.getByRole('button', { name: /^Read where it is asked for/ }));
  await user.keyboard('-49.9{Enter}');
  await screen.findByText('That says R4.');
  await user.click(screen.getByRole('button', { name: /^Read where it is asked for/ }));
  await user.keyboard('{Control>}a{/Control}12{Enter}');
  await screen.findByText(/^That fits none of them/);
  expect(Object.values(present().boards[0].reads ?? {})).toEqual([12]);

  await user.click((await screen.findAllByRole('button', { name: /^Trim it with/ }))[0]);
  expect(Object.keys(present().boards[0].values)).toHaveLength(2);
  const before = present().ways[0].stages;
  await user.click(await screen.findByRole('button', { name: 'Use R4 in the sheet' }));
  expect(present().ways[0].stages).not.toEqual(before);
  expect(Object.keys(present().boards[0].values)).toHaveLength(1);
  act(undo);
  act(undo);
  expect(present().ways[0].stages).toEqual(before);
  expect(Object.keys(present().boards[0].values)).toHaveLength(2);
});

test('a second take, of what the source sees, is weighed with the first when that is asked for', async () => {
  render(<Open />);
  const fault = { seed: 1, fault: 'C1=*1.4', noiseDb: 0.1 };
  await pasted(takeTable(measureRigBoard(present(), fault)), 'levels');
  await suspects();
  await user.click(screen.getByRole('button', { name: 'Sweep the board' }));
  await user.type(await screen.findByLabelText('What is wrong with it'), 'C1=*1.4');
  await chosen('What is measured', 'impedance that the source sees');
  await user.click(await screen.findByRole('button', { name: 'Measure it' }));
  await screen.findByText(/impedance that the source sees/, { selector: 'button span' });
  const [takeId, ohmsId] = present().boards[0].takes;
  await screen.findByRole('group', { name: 'Predicted and measured impedance over frequency' });
  await user.click(screen.getByRole('checkbox', { name: 'Weigh levels with ohms, board 1' }));
  expect(present().boards[0].together).toEqual([takeId]);
  await screen.findByText(/Weighed with levels\./, {}, { timeout: 10_000 });
  const [first] = within(await suspects()).getAllByRole('button');
  expect(first.textContent).toMatch(/^C1, /);
  // The readings are those of the output, whatever is looked at.
  await screen.findByRole('table', { name: 'Readings of all boards' });
  await user.click(screen.getByRole('button', { name: 'Remove levels' }));
  expect(present().boards[0]).toMatchObject({ takes: [ohmsId], together: [] });
});

test('levels that are read at the steps make a take', async () => {
  render(<Open />);
  await user.click(screen.getByRole('button', { name: '+ board' }));
  const list = await screen.findByRole('list', { name: 'Steps' }, { timeout: 10_000 });
  const spots = await within(list).findAllByRole(
    'button',
    { name: /^Read at Level at/ },
    { timeout: 10_000 },
  );
  for (const spot of spots.slice(0, 2)) {
    await user.click(spot);
    await user.keyboard('-0.2{Enter}');
  }
  await user.click(await screen.findByRole('button', { name: 'Take the 2 levels that were read' }));
  await waitFor(() => expect(present().boards[0].takes).toHaveLength(1));
  await screen.findByText(/The take has 2 points/, {}, { timeout: 10_000 });
});

test('of a crossover one way stands on the bench, and takes are of that way', async () => {
  act(closeNow);
  act(() => void openNow(hallSpeaker(AT)));
  render(<Open />);
  const [first, { id, name }] = present().ways;
  await chosen('Which path is measured', name);
  await pasted('100, -40\n300, -20\n1000, 0\n3000, -10\n9000, -30');
  await waitFor(() => expect(present().boards[0].takes).toHaveLength(1));
  await screen.findByRole('button', { name: 'Remove evening' });
  const { takes } = useOpenLibrary.getState().library;
  const [takeId] = present().boards[0].takes;
  expect(takes.find((t) => t.id === takeId)?.of).toEqual({ is: 'level', way: id });
  // It is no take of another way.
  await chosen('Which path is measured', first.name);
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Remove evening' })).toBeNull());
});

test('a bad take is refused with its line, and nothing is taken', async () => {
  render(<Open />);
  const dialog = await pasted('100, 0\n200, up\n400, -3');
  expect(within(dialog).getByRole('alert').textContent).toContain('Line 2 of the take');
  expect(present().boards).toEqual([]);
  await user.clear(within(dialog).getByLabelText('Readings'));
  await user.click(within(dialog).getByLabelText('Readings'));
  await user.paste('100, 0\n200, -1\n400, -3');
  await user.click(within(dialog).getByRole('button', { name: 'Take it' }));
  // Too few to tell parts by: kept, and said.
  await screen.findByText(/The take has 3 points/, {}, { timeout: 10_000 });
  expect(present().boards[0].takes).toHaveLength(1);
});

test('a simulated board with a fault that cannot be is not swept', async () => {
  render(<Open />);
  await user.click(screen.getByRole('button', { name: 'Sweep the board' }));
  await user.type(await screen.findByLabelText('What is wrong with it'), 'C99=*2');
  await user.click(await screen.findByRole('button', { name: 'Sweep it' }));
  await screen.findByText(/There is no part “C99”/);
  expect(present().boards).toEqual([]);
});

test('steps are ticked board by board, and a reading outside its limits is marked', async () => {
  render(<Open />);
  await user.click(screen.getByRole('button', { name: '+ board' }));
  await user.click(screen.getByRole('button', { name: '+ board' }));
  const list = await screen.findByRole('list', { name: 'Steps' }, { timeout: 10_000 });
  await user.click(within(list).getByRole('checkbox', { name: 'Resistors' }));
  expect(present().boards[1].done).toEqual(['solder-resistors']);
  expect(present().boards[0].done).toBeUndefined();
  await screen.findByText(/^1 of \d+$/);

  await user.click(within(list).getByRole('button', { name: /^Read at At rest: output of A1/ }));
  await user.keyboard('1.5{Enter}');
  expect(present().boards[1].reads).toEqual({ 'rest-A1': 1.5 });
  await within(list).findByText(/outside/);
  await screen.findByText(/^2 of \d+$/);

  await user.click(screen.getByRole('button', { name: 'Board 1' }));
  await screen.findByText(/^0 of \d+$/, {}, { timeout: 10_000 });
  expect(screen.queryByText(/outside/)).toBeNull();
});
