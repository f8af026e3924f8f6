/** @jest-environment jsdom */
import '@/testing/dom';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Sheet } from '@/core/sheet/schema';
import { driverEnd } from '@/core/crossover/crossover-design';
import { required } from '@/store/sheets';
import { BeginCrossover } from './begin-crossover';

const user = userEvent.setup({ delay: null });
const made = jest.fn<void, [Sheet]>();
beforeEach(async () => {
  made.mockClear();
  render(<BeginCrossover open onClose={() => undefined} onMade={made} />);
  // The demo’s drivers are put in first.
  await screen.findByRole('combobox', { name: 'Driver of way 1' });
});

async function choose(field: string, option: string): Promise<void> {
  fireEvent.mouseDown(screen.getByRole('combobox', { name: field }));
  const lists = await screen.findAllByTitle(option);
  await user.click(lists[lists.length - 1]);
}
const begin = () => user.click(screen.getByRole('button', { name: 'Begin the crossover' }));
const split = (n: number) => screen.findByRole('button', { name: new RegExp(`^Split ${n}:`) });

test('two drivers are divided where both are of use; the sheet ends in them and is stored', async () => {
  await choose('Driver of way 1', 'Bass unit, 130 mm');
  expect(screen.queryByRole('button', { name: /^Split/ })).toBeNull();
  await choose('Driver of way 2', 'Soft dome, 25 mm');
  expect((await split(1)).textContent).toMatch(/^1\.7\skHz$/);
  screen.getByText(/^of use 1\.7\skHz to 7\.3\skHz$/);
  await user.type(screen.getByRole('textbox', { name: 'Called' }), 'Window sill');
  await begin();
  await waitFor(() => expect(made).toHaveBeenCalled());
  const [[sheet]] = made.mock.calls;
  expect(sheet).toMatchObject({ title: 'Window sill', crossover: { splitsHz: [1700], order: 4 } });
  expect(sheet.ways.map((w) => driverEnd(w).name)).toEqual([
    'Bass unit, 130 mm',
    'Soft dome, 25 mm',
  ]);
  expect(await required(sheet.id)).toEqual(sheet);
});

test('a split that was typed stays, slopes and amplifiers are as chosen, a gap is said', async () => {
  await choose('Driver of way 1', 'Bass unit, 250 mm');
  await choose('Driver of way 2', 'Small dome, 19 mm');
  const doubts = await screen.findByRole('list', { name: 'Doubts' });
  within(doubts).getByText(/^Bass unit, 250 mm narrows its beam/);
  await user.click(await split(1));
  const field = screen.getByRole('textbox', { name: 'Split 1' });
  await user.clear(field);
  await user.type(field, '2k2{Enter}');
  expect((await split(1)).textContent).toMatch(/^2\.2\skHz$/);
  await choose('Alignment', 'Butterworth');
  await choose('Order', '3');
  await choose('Amplifiers', 'an amplifier for each way, op-amps before them');
  await begin();
  await waitFor(() => expect(made).toHaveBeenCalled());
  const [[{ crossover, ways }]] = made.mock.calls;
  expect(crossover).toMatchObject({ splitsHz: [2200], alignment: 'butterworth', order: 3 });
  expect(ways.every((w) => driverEnd(w).amplifier)).toBe(true);
});

test('a way without a driver is not passed over', async () => {
  await choose('Driver of way 1', 'Bass unit, 130 mm');
  await begin();
  expect((await screen.findByRole('alert')).textContent).toBe(
    'Choose a driver for way 2, or leave the way out.',
  );
  expect(made).not.toHaveBeenCalled();
  await user.click(screen.getByRole('button', { name: 'Without way 2' }));
  expect(screen.queryByRole('alert')).toBeNull();
  await begin();
  await waitFor(() => expect(made).toHaveBeenCalled());
  expect(made.mock.calls[0][0].ways).toHaveLength(1);
});
