/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { drawerContents } from '@/store/drawer';
import { undo } from '@/store/sheet-session';
import { database } from '@/store/database';
import { useSheet } from '@/store/sheet-session';
import { closeNow, openNow, present } from '@/testing/open-sheet';
import { DeviceWindow } from '../drawer/device-window';
import { OpAmpChoice } from '../sheet/model-choice';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

beforeEach(async () => {
  await database().drawer.clear();
  act(() => void openNow());
});
afterEach(() => act(closeNow));

const user = () => userEvent.setup({ delay: null });
const entries = async () => (await drawerContents()).entries;

/** Type over one of the figures. */
async function tell(name: RegExp, text: string): Promise<void> {
  const hands = user();
  await hands.click(screen.getByRole('button', { name }));
  const field = screen.getByRole('textbox', { name: new RegExp(name.source.replace('^', '')) });
  await hands.clear(field);
  await hands.type(field, `${text}{Enter}`);
}

test('an op-amp goes into the drawer with figures of its own, and is looked at again', async () => {
  const close = jest.fn();
  const { unmount } = render(<DeviceWindow onClose={close} />);
  await tell(/^Slew rate/, '20');
  expect(screen.getByRole('textbox', { name: 'Name of the device' })).toHaveProperty(
    'value',
    'quiet bipolar, 10 MHz, own figures',
  );
  await tell(/^Output resistance/, '-3');
  screen.getByText(/must not be negative|greater than zero|a resistance/i);
  await user().keyboard('{Escape}');
  await user().click(screen.getByRole('button', { name: 'Put in' }));
  await waitFor(() => expect(close).toHaveBeenCalled());
  const [entry] = await entries();
  expect(entry).toMatchObject({
    kind: 'op-amp',
    name: 'quiet bipolar, 10 MHz, own figures',
    quantity: 1,
    model: { slewVoltsPerSecond: 20e6, gainBandwidthHz: 10e6, outputOhms: 40 },
  });
  unmount();

  render(<DeviceWindow entry={entry} onClose={close} />);
  await tell(/^Gain-bandwidth product/, '8M');
  await user().click(screen.getByRole('button', { name: 'Keep' }));
  await waitFor(async () =>
    expect((await entries())[0].model).toMatchObject({ gainBandwidthHz: 8e6 }),
  );
  expect(await entries()).toHaveLength(1);
});

function Choice() {
  return <OpAmpChoice opAmp={useSheet()!.parts.opAmp} />;
}

test('a sheet takes a device of the drawer, or changes the figures of its own, in one step each', async () => {
  const { unmount } = render(<DeviceWindow onClose={() => undefined} />);
  await tell(/^Gain-bandwidth product/, '4M');
  await user().click(screen.getByRole('button', { name: 'Put in' }));
  await waitFor(async () => expect(await entries()).toHaveLength(1));
  unmount();

  render(<Choice />);
  const before = present().parts.opAmp;
  await user().click(screen.getByRole('button', { name: `Op-amp: ${before.name}` }));
  await user().click(await screen.findByRole('menuitem', { name: /own figures$/ }));
  expect(present().parts.opAmp).toMatchObject({
    name: 'quiet bipolar, 10 MHz, own figures',
    model: { gainBandwidthHz: 4e6 },
  });

  await user().click(screen.getByRole('button', { name: /^Op-amp: .*own figures/ }));
  await user().click(await screen.findByRole('menuitem', { name: 'Change its figures…' }));
  const window = await screen.findByRole('dialog', { name: 'Figures of the sheet’s op-amps' });
  await tell(/^Voltage noise/, '3n');
  await user().click(within(window).getByRole('button', { name: 'Keep' }));
  expect(present().parts.opAmp.model).toMatchObject({
    gainBandwidthHz: 4e6,
    inputVoltageNoise: 3e-9,
  });
  act(undo);
  expect(present().parts.opAmp.model).toMatchObject({ inputVoltageNoise: 5e-9 });
  act(undo);
  expect(present().parts.opAmp).toEqual(before);
});
