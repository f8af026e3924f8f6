/** @jest-environment jsdom */
import '@/testing/dom';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { WordCombo, type WordOption } from './word-combo';

const KINDS: readonly WordOption[] = [
  { value: 'resistor', word: 'resistor', aliases: ['R'] },
  { value: 'capacitor', word: 'capacitor', aliases: ['C'] },
  { value: 'inductor', word: 'coil', aliases: ['inductor', 'L'] },
  { value: 'op-amp', word: 'op-amp', aliases: ['A'] },
];

function shown(value = 'resistor') {
  const chosen: string[] = [];
  const looked: (string | null)[] = [];
  const submit = jest.fn();
  function Sentence() {
    const [kind, setKind] = useState(value);
    return (
      <form
        onSubmit={(e) => {
          e.preventDefault();
          submit(kind);
        }}
      >
        <WordCombo
          label="Kind"
          options={KINDS}
          value={kind}
          onChange={(next) => {
            chosen.push(next);
            setKind(next);
          }}
          onLook={(at) => looked.push(at)}
        />
        <input aria-label="Next word" />
        <button type="submit">Do it</button>
      </form>
    );
  }
  render(<Sentence />);
  return { chosen, looked, submit, user: userEvent.setup({ delay: null }) };
}
const combo = () => screen.getByRole('combobox', { name: 'Kind' });
const options = () =>
  within(screen.getByRole('listbox'))
    .queryAllByRole('option')
    .map((o) => o.textContent);

test('typed letters narrow the words; the nearest come first; Tab takes the marked one and moves on', async () => {
  const { chosen, user } = shown();
  await user.click(combo());
  expect(options()).toHaveLength(KINDS.length);
  // A click leaves the whole word to be typed over.
  await user.keyboard('c');
  // “C” names the capacitor, “coil” begins with it, the conductor of coils only has it inside.
  expect(options()[0]).toBe('capacitor');
  expect(options()).toContain('coil');
  expect(options()).not.toContain('op-amp');
  await user.tab();
  expect(chosen).toEqual(['capacitor']);
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Next word' }));
  expect(screen.queryByRole('listbox')).toBeNull();
});

test('arrow keys go through them and what is looked at is told; Escape takes nothing', async () => {
  const { chosen, looked, user } = shown('capacitor');
  combo().focus();
  await user.keyboard('{ArrowDown}');
  expect(looked[looked.length - 1]).toBe('inductor');
  expect(combo().getAttribute('aria-activedescendant')).toMatch(/inductor$/);
  await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
  expect(looked[looked.length - 1]).toBe('op-amp');
  await user.keyboard('{ArrowUp}{Escape}');
  expect(chosen).toEqual([]);
  expect(looked[looked.length - 1]).toBeNull();
  expect((combo() as HTMLInputElement).value).toBe('capacitor');
});

test('Enter takes the word and is the sentence’s too', async () => {
  const { chosen, submit, user } = shown();
  combo().focus();
  await user.keyboard('{ArrowDown}{Enter}');
  expect(chosen).toEqual(['capacitor']);
  expect(submit).toHaveBeenCalledTimes(1);
});

test('the pointer chooses; what nothing is called is said', async () => {
  const { chosen, user } = shown();
  await user.click(combo());
  await user.pointer({ keys: '[MouseLeft]', target: screen.getByRole('option', { name: 'coil' }) });
  expect(chosen).toEqual(['inductor']);
  await user.click(combo());
  await user.keyboard('valve');
  expect(screen.getByText('nothing is called that')).toBeDefined();
  await user.tab();
  expect(chosen).toEqual(['inductor']);
  expect((combo() as HTMLInputElement).value).toBe('coil');
});
