/** @jest-environment jsdom */
import '@/testing/dom';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ReedError } from '@/core/errors';
import { EditableQuantity } from './editable-quantity';

const shown = (props: Partial<Parameters<typeof EditableQuantity>[0]> = {}) => {
  const onCommit = jest.fn();
  render(
    <EditableQuantity
      label="Resistance"
      value={4700}
      kind="ohms"
      mark="point"
      shown="4k7"
      onCommit={onCommit}
      {...props}
    />,
  );
  return { onCommit, user: userEvent.setup() };
};
const open = async (user: ReturnType<typeof userEvent.setup>) => {
  await user.click(screen.getByRole('button', { name: /^Resistance/ }));
  return screen.getByRole('textbox', { name: 'Resistance' });
};

describe('a value in running text', () => {
  test.each([
    ['4k3', 4300],
    ['4.3k', 4300],
    ['4300', 4300],
    ['4300 Ω', 4300],
    ['0.47M', 470_000],
  ])('“%s” is read as %d and handed on once', async (text, ohms) => {
    const { onCommit, user } = shown();
    const field = await open(user);
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
    expect(onCommit.mock.calls).toEqual([[ohms]]);
    // The word stands there again and has the focus, so that the keyboard goes on.
    expect(screen.getByRole('button', { name: 'Resistance: 4k7' })).toBe(document.activeElement);
  });

  test('leaving it hands it on too; Escape and an unchanged text do not', async () => {
    const { onCommit, user } = shown();
    const field = await open(user);
    await user.clear(field);
    await user.type(field, '10k');
    await user.tab();
    expect(onCommit.mock.calls).toEqual([[10_000]]);
    await user.type(await open(user), '9{Escape}');
    await user.type(await open(user), '{Enter}');
    expect(onCommit).toHaveBeenCalledTimes(1);
  });

  test.each(['4x7', 'k', '1e', '--3'])('“%s” stays in its field with a sentence', async (text) => {
    const { onCommit, user } = shown();
    const field = await open(user);
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
    expect(screen.getByRole('alert').textContent).toMatch(/\w+ .*\./);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect((field as HTMLInputElement).value).toBe(text);
    expect(onCommit).not.toHaveBeenCalled();
    // Typing on takes the complaint away.
    await user.type(field, '1');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('what whoever takes it refuses is said in their words', async () => {
    const { user } = shown({
      onCommit: () => {
        throw new ReedError('range', 'The resistance must be at most 10 GΩ.');
      },
    });
    const field = await open(user);
    await user.clear(field);
    await user.type(field, '20G{Enter}');
    expect(screen.getByRole('alert').textContent).toBe('The resistance must be at most 10 GΩ.');
    expect(field.getAttribute('aria-describedby')).toBe(screen.getByRole('alert').id);
  });

  test('an emptied field is nothing where that may be, and a complaint where it may not', async () => {
    const clearable = shown({ clearable: true });
    await clearable.user.clear(await open(clearable.user));
    await clearable.user.keyboard('{Enter}');
    expect(clearable.onCommit.mock.calls).toEqual([[null]]);
  });

  test('a decimal comma is read where the person writes one', async () => {
    const { onCommit, user } = shown({ mark: 'comma' });
    const field = await open(user);
    await user.clear(field);
    await user.type(field, '4,32k{Enter}');
    expect(onCommit.mock.calls).toEqual([[4320]]);
  });
});
