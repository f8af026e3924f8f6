/** @jest-environment jsdom */
import '@/testing/dom';
import { meetingShift } from '@/core/speaker/tables/work';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { database } from '@/store/database';
import { driversContents } from '@/store/drivers';
import { DriversScreen } from './drivers-screen';

jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));

const entries = async () => (await driversContents()).entries;
const named = async (name: string) => (await entries()).find((e) => e.name === name)!;
let user: ReturnType<typeof userEvent.setup>;
beforeEach(async () => {
  user = userEvent.setup({ delay: null });
  render(<DriversScreen />);
  // The demo's are there first.
  await screen.findByRole('button', { name: /^Bass unit, 130 mm/ });
});
afterEach(() => database().drivers.where('id').noneOf(['demo-bass-130']).delete());

/** A file that can be read: the simulated browser's own cannot. */
const fileOf = (name: string, text: string) =>
  Object.assign(new File([text], name, { type: 'text/plain' }), {
    text: () => Promise.resolve(text),
  });

test('a figure is changed where it stands; one that cannot be is refused in words', async () => {
  await user.click(screen.getByRole('button', { name: /^Bass unit, 130 mm/ }));
  const sheet = screen.getByRole('region', { name: 'Bass unit, 130 mm' });
  const set = async (text: string) => {
    await user.click(within(sheet).getByRole('button', { name: /^Qes/ }));
    await user.clear(screen.getByRole('textbox', { name: /^Qes/ }));
    await user.type(screen.getByRole('textbox', { name: /^Qes/ }), `${text}{Enter}`);
  };
  await set('0.5');
  await waitFor(async () => expect((await named('Bass unit, 130 mm')).model.qes).toBe(0.5));
  await set('0');
  expect((await screen.findByRole('alert')).textContent).toMatch(
    /“model\.qes”: must be at least 0\.01/,
  );
  expect((await named('Bass unit, 130 mm')).model.qes).toBe(0.5);
});

test('a table is read, what was refused is said by its line, and it is taken as what it is', async () => {
  await user.click(screen.getByRole('button', { name: 'New driver' }));
  const sheet = await screen.findByRole('region', { name: 'New driver' });
  const rows = Array.from({ length: 40 }, (_, i) => `${20 * 2 ** (i / 4)};${6 + i / 10}`);
  const text = ['Hz;Ohm', ...rows.slice(0, 20), '-3;5', ...rows.slice(20)].join('\r\n');
  // The field is made anew with every file.
  const input = () => sheet.querySelector<HTMLInputElement>('input[type=file]')!;
  await user.upload(input(), fileOf('unit.csv', text));
  await within(sheet).findByText(/40 rows of 2 columns; 1 line refused/);
  within(sheet).getByText('line 22: the frequency is negative');
  await user.click(within(sheet).getByRole('button', { name: 'Take as impedance' }));
  await waitFor(async () =>
    expect((await named('New driver')).model.measured?.impedance?.ohms).toHaveLength(40),
  );
  await within(sheet).findByText(/Impedance, 40 rows, phase by its circuit/);
  await user.upload(input(), fileOf('words.txt', 'no table'));
  expect((await within(sheet).findByRole('alert')).textContent).toMatch(
    /words\.txt: The table has no row/,
  );
});

test('another level is joined to the one that is there, shifted to meet it, and parted again', async () => {
  await user.click(await screen.findByRole('button', { name: /^Bass unit, 130 mm/ }));
  const sheet = await screen.findByRole('region', { name: 'Bass unit, 130 mm' });
  const before = (await named('Bass unit, 130 mm')).model.measured!.level!;
  const near = Array.from({ length: 30 }, (_, i) => `${100 * 2 ** (i / 4)}\t${70 + i / 10}\t0`);
  const input = sheet.querySelector<HTMLInputElement>('input[type=file]')!;
  await user.upload(input, fileOf('near.txt', near.join('\n')));
  await within(sheet).findByText(/30 rows of 3 columns/);
  const hz = within(sheet).getByRole('spinbutton', { name: 'Join below' });
  await user.clear(hz);
  await user.type(hz, '2000');
  await user.click(within(sheet).getByRole('button', { name: 'Join to the level, below' }));
  const level = async () => (await named('Bass unit, 130 mm')).model.measured!.level!;
  await waitFor(async () => expect((await level()).below).toBeDefined());
  const { below, ...rest } = await level();
  expect(rest).toEqual(before);
  expect(below!.joinHz).toBe(2000);
  // Where they are joined they meet: 71.7 dB there, and a shift that makes up for the rest.
  expect(meetingShift(before, below!, 2000)).toBeCloseTo(below!.shiftDb, 2);
  await user.click(await within(sheet).findByRole('button', { name: 'Part the two' }));
  await waitFor(async () => expect(await level()).toEqual(before));
});
