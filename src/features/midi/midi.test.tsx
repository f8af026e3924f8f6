/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { keyboardVoice } from '@/core/demo/voices';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { useSheet } from '@/store/sheet-session';
import { useTold } from '../shell/tell';
import { knobTurned, playNotesBy, useMidi } from './midi';
import { MidiForm } from './midi-form';

/** What the browser gives of one controller: a port whose messages are sent from here. */
class FakeInput extends EventTarget {
  readonly id = 'in-1';
  readonly name = 'Eight knobs';
  readonly manufacturer = '';
  readonly version = '1';
  readonly type = 'input';
  readonly state = 'connected';
  readonly connection = 'open';
  onmidimessage: ((e: { data: Uint8Array; timeStamp: number }) => void) | null = null;
  onstatechange = null;
  open = () => Promise.resolve(this);
  close = () => Promise.resolve(this);
  send(...data: number[]) {
    this.onmidimessage?.({ data: Uint8Array.from(data), timeStamp: 1 });
  }
}

function Open() {
  return <MidiForm controls={useSheet()!.controls} />;
}
const show = () => {
  act(() => void openNow(keyboardVoice(AT)));
  return render(<Open />);
};
const browserHas = (value: unknown) =>
  Object.defineProperty(navigator, 'requestMIDIAccess', { value, configurable: true });

beforeEach(() => useMidi.setState({ is: 'off', inputs: [], learning: null }));
afterEach(() => {
  playNotesBy(null);
  act(() => {
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  });
});

test('a browser without it says so, and what does the same', async () => {
  browserHas(undefined);
  show();
  expect((await screen.findByRole('status')).textContent).toMatch(
    /has no MIDI.*keys and the sliders/,
  );
});

test('a browser that refuses can be asked again', async () => {
  browserHas(() => Promise.reject(new Error('denied')));
  show();
  expect(await screen.findByRole('button', { name: 'Ask again' })).toBeTruthy();
});

test('a control takes the knob that is turned next, follows it, and lets it go', async () => {
  const input = new FakeInput();
  browserHas(() =>
    Promise.resolve({
      inputs: new Map([[input.id, input]]),
      outputs: new Map(),
      sysexEnabled: false,
      onstatechange: null,
    }),
  );
  const user = userEvent.setup({ delay: null });
  show();
  expect(await screen.findByText(/Eight knobs/)).toBeTruthy();
  const [take] = screen.getAllByRole('button', { name: 'Take a knob' });
  await user.click(take);
  expect(screen.getByText(/turn a knob on the controller/)).toBeTruthy();
  act(() => input.send(0xb0, 74, 0));
  expect(present().controls[0]).toMatchObject({ midi: 74, at: 0 });
  act(() => input.send(0xb0, 74, 127));
  expect(present().controls[0].at).toBe(1);
  // Other knobs move nothing.
  act(() => knobTurned(75, 0.2));
  expect(present().controls.map((c) => c.at)).toEqual([1, 0.5]);
  const played: number[] = [];
  playNotesBy({ press: (n) => played.push(n), release: (n) => played.push(-n) });
  act(() => {
    input.send(0x90, 60, 100);
    input.send(0x80, 60, 0);
  });
  expect(played).toEqual([12, -12]);
  await user.click(screen.getByRole('button', { name: /Let the knob of Cut-off go/ }));
  expect(present().controls[0].midi).toBeUndefined();
});
