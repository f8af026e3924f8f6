/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { closeNow, openNow, present } from '@/testing/open-sheet';
import { SpreadForm } from './spread-form';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

beforeEach(() => act(() => void openNow()));
afterEach(() => act(closeNow));

test('pieces that were measured are typed or pasted, and what cannot be read changes nothing', async () => {
  const user = userEvent.setup({ delay: null });
  render(<SpreadForm />);
  await user.click(screen.getByText('as measured'));
  expect(present().parts.deviations?.shape).toBe('measured');
  const field = () => screen.getByRole('textbox', { name: 'Capacitors measured, % off' });
  await user.click(field());
  await user.paste('10n: 9.9n 10.2n');
  await user.tab();
  const { measured } = present().parts.deviations!;
  expect(measured?.capacitor?.map((x) => x.toFixed(4))).toEqual(['-0.0100', '0.0200']);
  screen.getByText(/2 pieces, 0.5 % in the mean, 2 % at the most/);
  expect(field()).toHaveProperty('value', '-1 2');

  await user.type(field(), ' often');
  await user.tab();
  expect(screen.getByRole('alert').textContent).toMatch(/“often” is not a number/);
  expect(present().parts.deviations?.measured).toEqual(measured);
  expect(field()).toHaveProperty('value', '-1 2 often');
});
