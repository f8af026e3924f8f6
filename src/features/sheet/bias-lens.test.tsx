/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { biasStageOf } from '@/core/bias';
import type * as Here from '@/testing/engine';
import { useSheet } from '@/store/sheet-session';
import { closeNow, openNow, present, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { addBias } from './actions/bias';
import { BiasLens } from './bias-lens';
import { resetUi, useUi } from './ui-state';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

function Open() {
  return <BiasLens sheet={useSheet()!} />;
}
const show = (id: string) => {
  act(() => {
    openNow();
    addBias(biasStageOf(id)!, null);
  });
  render(<Open />);
};
const table = (name: string) => screen.findByRole('table', { name });

async function typeOver(label: string, text: string) {
  const field = screen.getByRole('textbox', { name: label });
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
}

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);

test('a transistor stage shows its rest, and writes it beside the transistor', async () => {
  show('common-emitter');
  expect(present().view.lens).toBe('bias');
  const rest = await table('At rest');
  expect(within(rest).getByRole('row', { name: /Q1, solved/ }).textContent).toMatch(
    /(99\d\sµA|1\.0\d\smA)/,
  );
  expect(rest.textContent).toMatch(/divider carries [\d.]+ times/);
  await waitFor(() => expect(useUi.getState().atRest.Q1).toMatch(/V, .*A\n.* mW, .* V left/));
});

test('another word chooses all values anew, and an impossible one is refused', async () => {
  show('common-emitter');
  await table('At rest');
  const before = stages()[0].parts.RC.value;
  await user.click(screen.getByRole('button', { name: /^Supply/ }));
  await typeOver('Supply', '18');
  await waitFor(() => expect(stages()[0].bias!.ask.volts).toBe(18));
  expect(stages()[0].parts.RC.value).toBeGreaterThan(before! * 1.8);
  await user.click(screen.getByRole('button', { name: /^Gain/ }));
  await typeOver('Gain', '0.2');
  expect(stages()[0].bias!.ask.gain).toBe(10);
});

test('what it could become stands beside it, and is taken in one step', async () => {
  show('follower');
  const improve = await table('Before and after');
  expect(within(improve).getByRole('row', { name: /bootstrap/ }).textContent).toMatch(/kΩ/);
  await user.click(screen.getByRole('button', { name: /use it.*Bootstrapped input/ }));
  await waitFor(() => expect(stages()[0].bias!.stage).toBe('bootstrapped-follower'));
  expect(stages()[0].parts).toHaveProperty('CB');
});

test('without one it says how to come by one', () => {
  act(() => void openNow());
  render(<Open />);
  expect(screen.getByText(/No transistor stage is planned here/)).toBeTruthy();
});
