/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { undo } from '@/store/sheet-session';
import { useSheet } from '@/store/sheet-session';
import { closeNow, openNow, stages } from '@/testing/open-sheet';
import { clearFitting } from './fitting';
import { MadeForm } from './made-form';
import { madeWords } from './made-words';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

beforeEach(() => act(() => void openNow()));
afterEach(() =>
  act(() => {
    clearFitting();
    closeNow();
  }),
);

function Form() {
  const [stage] = useSheet()!.ways[0].stages;
  return <MadeForm stage={stage} part="R1" name="R1" />;
}

test('a resistor becomes one that is trimmed when its parts are fitted, and undo takes it back', async () => {
  const user = userEvent.setup({ delay: null });
  render(<Form />);
  const before = stages()[0].parts.R1;
  screen.getByText('one part', { selector: 'b' });
  await user.click(screen.getByRole('combobox', { name: 'R1 may be' }));
  await user.click(await screen.findByTitle('one part and a trimmer'));
  expect(stages()[0].parts.R1).toMatchObject({ may: 'trimmer', value: before.value });
  await user.click(screen.getByRole('button', { name: 'Fit all parts together' }));
  await waitFor(() => expect(stages()[0].parts.R1.made?.how).toBe('trimmer'));
  await screen.findByText(/ and a trimmer of .*, set to .* \(\d+ %\)/);
  act(undo);
  act(undo);
  expect(stages()[0].parts.R1).toEqual(before);
});

test('what a part is made of is told in words', () => {
  const words = (value: number, made?: Parameters<typeof madeWords>[1]['made']) =>
    madeWords('resistor', { value, made }, 'point');
  expect(words(5000)).toBe('one part');
  expect(words(6000, { how: 'parallel', of: [1e4, 15e3] })).toBe('10k and 15k in parallel');
  expect(words(5000, { how: 'series', of: [4700, 300] })).toBe('4k7 and 300 in series');
  expect(words(5100, { how: 'trimmer', of: [4700, 1000] })).toBe(
    '4k7 and a trimmer of 1k, set to 400 (40 %)',
  );
});
