/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { search } from '@/core/shop/shop';
import { useSheet } from '@/store/sheet-session';
import { closeNow, newSheet, openNow } from '@/testing/open-sheet';
import { SpreadAdvice } from './spread-advice';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

function Advice({ heaviest }: { heaviest: string }) {
  const sheet = useSheet()!;
  return (
    <SpreadAdvice sheet={sheet} reading={sheet.readings[0]} heaviest={heaviest} mark="point" />
  );
}

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  act(() => void openNow(newSheet()));
  globalThis.fetch = jest.fn((input: string) => {
    const query = new URL(input, 'http://shop.local').searchParams;
    const value = query.get('value');
    const answer = search({
      text: query.get('q') ?? '',
      ...(query.has('kind') ? { kind: query.get('kind')! } : {}),
      ...(value === null ? {} : { value: Number(value) }),
    });
    return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve(answer) });
  }) as unknown as typeof fetch;
});
afterEach(() => act(() => closeNow()));

test('what a closer part costs comes from the shop, beside what is usual', async () => {
  render(<Advice heaviest="R1" />);
  await user.click(screen.getByRole('button', { name: 'What would R1 cost closer?' }));
  const said = await screen.findByRole('status');
  expect(said.textContent).toMatch(/precision metal film.*0\.1 %: 0\.38 each instead of 0\.05/);
});

test('a part that nobody sells closer, and a pair that is not worth matching, are said so', async () => {
  render(<Advice heaviest="A1" />);
  await user.click(screen.getByRole('button', { name: /cost closer/ }));
  expect((await screen.findByRole('status')).textContent).toMatch(/none of the parts/);
  await user.click(screen.getByRole('button', { name: 'Which two to match?' }));
  const said = await screen.findByText(/^(Match|No two)/);
  expect(said.textContent).toMatch(/nine in ten then read|would make it surer/);
});
