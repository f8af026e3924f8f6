/** @jest-environment jsdom */
import '@/testing/dom';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { database } from '@/store/database';
import { drawerContents } from '@/store/drawer';
import { AddParts } from './add-parts';

beforeEach(() => database().drawer.clear());

const entries = async () => (await drawerContents()).entries;

const preview = () => within(screen.getByRole('dialog'));

/** The window in which the columns of what was pasted are named. */
async function pasted(text: string) {
  const user = userEvent.setup({ delay: null });
  render(<AddParts />);
  await user.click(screen.getByRole('textbox', { name: 'Parts, one kind a line' }));
  await user.paste(text);
  return user;
}

const understood = () =>
  within(preview().getByRole('list', { name: 'Lines as they are understood' }))
    .getAllByRole('listitem')
    .map((line) => line.textContent);

test('a pasted table is looked at before anything of it goes into the drawer', async () => {
  const user = await pasted(
    'Kind,Name,GBW (MHz),Slew rate,Pieces\nop-amp,quiet one,8,2.5 V/µs,4\nop-amp,odd one,8,often,1',
  );
  expect(understood()).toEqual([expect.stringMatching(/^4× quiet one, 8\sMHz, 2\.5\sV\/µs/)]);
  expect(
    within(preview().getByRole('list', { name: 'Lines that cannot be read' })).getByRole('listitem')
      .textContent,
  ).toMatch(/^Line 3 .*Slew rate: “often” is not a voltage/);
  expect(await entries()).toEqual([]);
  await user.click(preview().getByRole('button', { name: /^Put 1 of 2/ }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(await entries()).toMatchObject([
    { kind: 'op-amp', quantity: 4, model: { gainBandwidthHz: 8e6, slewVoltsPerSecond: 2.5e6 } },
  ]);
  // What could not be read stays, to be mended.
  const left = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Parts, one kind a line' });
  expect(left.value).toContain('odd one');
});

test('a column that nothing is known of is named by hand, one that is taken gives way', async () => {
  const user = await pasted('Value;Heap;Tol\n10k;50;1 %\n22n;20;5 %');
  expect(understood()[0]).toMatch(/^1× 10\skΩ/);
  await user.click(preview().getByRole('combobox', { name: 'Column 2, Heap' }));
  await user.click(await screen.findByTitle('quantity'));
  expect(understood()[0]).toMatch(/^50× 10\skΩ resistor, 1 %/);
  // “1 %” is no count of pieces, and the column that was one is left out.
  await user.click(preview().getByRole('combobox', { name: 'Column 3, Tol' }));
  await user.click((await screen.findAllByTitle('quantity')).at(-1)!);
  expect(
    within(preview().getByRole('list', { name: 'Lines that cannot be read' })).getAllByRole(
      'listitem',
    )[0].textContent,
  ).toMatch(/^Line 2 .*quantity “1 %” is no number/);
});

test('typed lines with commas are no table', async () => {
  await pasted('10k, 1 %, metal film\n22n, 5 %, film');
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(screen.getByRole('button', { name: 'Put in 2 kinds' })).toBeDefined();
});

test('far too much at once is refused in words', async () => {
  await pasted('10k 1 %\n'.repeat(20_001));
  expect(screen.getByRole('alert').textContent).toMatch(/2000[12] lines .* split it/);
  expect(screen.queryByRole('dialog')).toBeNull();
});
