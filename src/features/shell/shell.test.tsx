/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ReedError } from '@/core/errors';
import { database } from '@/store/database';
import { usePreferences } from '@/store/preferences';
import { storageProblem } from '@/store/problems';
import { setQuietly } from '@/store/session-state';
import { edit } from '@/store/sheet-session';
import { addSheet } from '@/store/sheets';
import { closeNow, LOW_PASS, newSheet, openNow } from '@/testing/open-sheet';
import { CommandPalette } from './command-palette';
import { printKeys, useCommands, useCommandStore, useShell, type Command } from './commands';
import { ErrorBoundary } from './error-boundary';
import { HotkeyBindings } from './hotkeys';
import { LeaveGuard, useGo } from './leave-guard';
import { PreferencesWindow } from './preferences-window';
import { ShortcutsWindow } from './shortcuts-window';
import { attempt, attemptStored, refuse, tell, unsay, useTold } from './tell';

const push = jest.fn();
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push }),
  usePathname: () => '/',
}));

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() => {
  act(() => {
    useShell.setState({ open: null, coming: 0 });
    useTold.setState({ waiting: [], begun: false });
    closeNow();
  });
  jest.clearAllMocks();
});
afterAll(() => database().close());

function Offer({ commands }: { commands: readonly Command[] }) {
  useCommands('test', commands);
  return null;
}
const command = (id: string, title: string, more: Partial<Command> = {}): Command => ({
  id,
  title,
  group: 'Sheet',
  run: jest.fn(),
  ...more,
});

describe('commands', () => {
  const keep = command('keep', 'Keep this state', { keys: 'k' });
  const undo = command('undo', 'Undo', { keys: 'mod+z' });
  const commands = [keep, undo];
  const shown = () =>
    render(
      <>
        <HotkeyBindings />
        <Offer commands={commands} />
        <input aria-label="A field" />
      </>,
    );
  const press = (key: string, more: object = {}) =>
    fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}`, ...more });

  test('answer to their keys, but not while a window is open or a field is typed into', async () => {
    shown();
    press('k');
    expect(keep.run).toHaveBeenCalledTimes(1);
    press('z', { ctrlKey: true });
    expect(undo.run).toHaveBeenCalledTimes(1);
    await user.type(screen.getByRole('textbox', { name: 'A field' }), 'k');
    expect(keep.run).toHaveBeenCalledTimes(1);
    act(() => useShell.setState({ open: 'preferences' }));
    press('k');
    expect(keep.run).toHaveBeenCalledTimes(1);
  });

  test('answer on what is pressed but not typed into, such as a menu that is just closing', () => {
    shown();
    render(
      <>
        <input type="radio" aria-label="One of two" />
        <input
          readOnly
          role="combobox"
          aria-label="A choice"
          aria-controls=""
          aria-expanded={false}
        />
        <div role="menu">
          <div role="menuitem" tabIndex={-1}>
            Kind
          </div>
        </div>
      </>,
    );
    const on = (name: string, role: string, key: string, more: object = {}) =>
      fireEvent.keyDown(screen.getByRole(role, { name }), {
        key,
        code: `Key${key.toUpperCase()}`,
        ...more,
      });
    on('One of two', 'radio', 'k');
    on('One of two', 'radio', 'z', { ctrlKey: true });
    on('A choice', 'combobox', 'z', { ctrlKey: true });
    on('Kind', 'menuitem', 'z', { ctrlKey: true });
    // A letter may mean an entry there.
    on('Kind', 'menuitem', 'k');
    expect(keep.run).toHaveBeenCalledTimes(1);
    expect(undo.run).toHaveBeenCalledTimes(3);
  });

  test('a form on its way to the screen is waited for', () => {
    shown();
    act(() => useShell.setState({ coming: 1 }));
    press('k');
    expect(keep.run).not.toHaveBeenCalled();
  });

  test('are withdrawn with what offers them', () => {
    const { unmount } = shown();
    expect(useCommandStore.getState().lists.get('test')).toBe(commands);
    unmount();
    expect(useCommandStore.getState().lists.has('test')).toBe(false);
    press('k');
    expect(keep.run).not.toHaveBeenCalled();
  });

  test('keys are printed as they are struck', () => {
    expect(printKeys('mod+shift+z')).toBe('Ctrl Shift Z');
    expect(printKeys('slash')).toBe('/');
    expect(printKeys('bracketleft,mod+b')).toBe('[');
  });

  test('the list of shortcuts names every command that has a key', async () => {
    shown();
    render(<ShortcutsWindow />);
    act(() => useShell.setState({ open: 'shortcuts' }));
    expect(await screen.findByText('Keep this state')).toBeDefined();
    expect(screen.getAllByText('Undo').length).toBeGreaterThan(0);
  });
});

describe('the palette', () => {
  test('finds by words of title, group and sheet, the nearest first; Enter does it', async () => {
    const { id } = await addSheet(newSheet(LOW_PASS, { title: 'Rumble of the hall' }));
    const undo = command('undo', 'Undo the last edit');
    const other = command('other', 'Show what undoing would do');
    const commands = [other, undo];
    render(
      <>
        <Offer commands={commands} />
        <CommandPalette />
      </>,
    );
    act(() => useShell.setState({ open: 'palette' }));
    const input = await screen.findByRole('combobox');
    await user.type(input, 'undo');
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual([
      expect.stringContaining('Undo the last edit'),
      expect.stringContaining('Show what undoing'),
    ]);
    await user.clear(input);
    await user.type(input, 'rumble');
    const option = await screen.findByRole('option', { name: /Open: Rumble of the hall/ });
    await user.click(option);
    await waitFor(() => expect(push).toHaveBeenCalledWith(`/sheet/${id}`));
    expect(useShell.getState().open).toBeNull();
  });

  test('says when nothing has these words', async () => {
    render(<CommandPalette />);
    act(() => useShell.setState({ open: 'palette' }));
    await user.type(await screen.findByRole('combobox'), 'xyzzy');
    expect(screen.getByText('No command or sheet has these words.')).toBeDefined();
  });
});

describe('leaving with edits that are not stored', () => {
  function Leaving() {
    const go = useGo();
    return (
      <>
        <LeaveGuard />
        <button onClick={() => go('/elsewhere')}>Go</button>
        <a href="/shelf">Shelf</a>
      </>
    );
  }
  /** As when the storage is full. */
  const stuck = () =>
    act(() => {
      openNow();
      edit(() => ({ title: 'Changed' }));
      setQuietly({ status: { is: 'failed', problem: 'full' }, unsaved: true });
    });

  test('is free when all is stored', async () => {
    render(<Leaving />);
    await user.click(screen.getByRole('button', { name: 'Go' }));
    expect(push).toHaveBeenCalledWith('/elsewhere');
  });

  test('is asked about first, by buttons and by links alike', async () => {
    render(<Leaving />);
    stuck();
    await user.click(screen.getByRole('button', { name: 'Go' }));
    expect(push).not.toHaveBeenCalled();
    await user.click(await screen.findByRole('button', { name: 'Stay here' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Stay here' })).toBeNull());
    await user.click(screen.getByRole('link', { name: 'Shelf' }));
    await user.click(await screen.findByRole('button', { name: 'Leave all the same' }));
    expect(push).toHaveBeenCalledWith('/shelf');
  });

  test('closing the page is held up only then', () => {
    render(<Leaving />);
    const close = () => {
      const event = new Event('beforeunload', { cancelable: true });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(close()).toBe(false);
    stuck();
    expect(close()).toBe(true);
  });
});

describe('a screen that cannot be drawn', () => {
  let broken = true;
  function Screen() {
    if (broken) throw new Error('a hole in the paper');
    return <p>The screen</p>;
  }
  beforeEach(() => {
    broken = true;
    jest.spyOn(console, 'error').mockImplementation(() => undefined);
  });
  afterEach(() => jest.restoreAllMocks());

  test('says so, keeps the sheet within reach, and can be tried again', async () => {
    openNow();
    render(
      <ErrorBoundary screen="/sheet/a">
        <Screen />
      </ErrorBoundary>,
    );
    expect(screen.getByRole('alert').textContent).toMatch(
      /fault of the program.*a hole in the paper/,
    );
    expect(screen.getByRole('button', { name: 'Export “On the bench”' })).toBeDefined();
    broken = false;
    await user.click(screen.getByRole('button', { name: 'Try again' }));
    expect(screen.getByText('The screen')).toBeDefined();
  });

  test('does not follow to the next screen', () => {
    const { rerender } = render(
      <ErrorBoundary screen="/sheet/a">
        <Screen />
      </ErrorBoundary>,
    );
    broken = false;
    rerender(
      <ErrorBoundary screen="/">
        <Screen />
      </ErrorBoundary>,
    );
    expect(screen.getByText('The screen')).toBeDefined();
  });
});

test('preferences act at once and are kept', async () => {
  render(<PreferencesWindow />);
  act(() => useShell.setState({ open: 'preferences' }));
  await user.click(await screen.findByText('Comma, 2,2k'));
  await user.click(screen.getByText('Zigzags'));
  await user.click(screen.getByText('Dark'));
  expect(usePreferences.getState()).toMatchObject({
    mark: 'comma',
    resistors: 'zigzag',
    theme: 'dark',
  });
  expect(localStorage.getItem('jaunty-reed-preferences')).toContain('"mark":"comma"');
  act(() => usePreferences.getState().set({ mark: 'point', resistors: 'box', theme: 'system' }));
});

describe('what is said', () => {
  const waiting = () => useTold.getState().waiting;

  test('what is refused is said in words; a fault of the program is not hidden', () => {
    expect(attempt(() => undefined)).toBe(true);
    expect(
      attempt(() => {
        throw new ReedError('range', 'Too much.');
      }, 'key'),
    ).toBe(false);
    expect(waiting()).toEqual([{ type: 'warning', content: 'Too much.', duration: 8, key: 'key' }]);
    expect(() =>
      attempt(() => {
        throw new TypeError('x is undefined');
      }),
    ).toThrow(TypeError);
  });

  test('what the store refuses is said by what was to be done', async () => {
    const full = () => Promise.reject(new DOMException('', 'QuotaExceededError'));
    expect(await attemptStored('“Hall” was not deleted', full)).toBe(false);
    expect(waiting()[0]).toMatchObject({
      content: expect.stringMatching(
        /^“Hall” was not deleted: this browser’s storage is full/,
      ) as string,
    });
    expect(await attemptStored('Nothing', () => Promise.resolve())).toBe(true);
  });

  test('messages can be taken back by their key, once any was said', () => {
    unsay('early');
    expect(waiting()).toEqual([]);
    tell('Done', { key: 'a', seconds: 1 });
    refuse('Not done');
    unsay('a');
    expect(waiting()).toMatchObject([
      { content: 'Done', key: 'a' },
      { content: 'Not done' },
      { gone: 'a' },
    ]);
  });

  test.each([
    [new DOMException('', 'QuotaExceededError'), /storage is full/],
    [{ name: 'AbortError', inner: { name: 'QuotaExceededError' } }, /storage is full/],
    [{ name: 'BulkError', failures: [{ name: 'DataCloneError' }] }, /cannot be stored/],
    [{ name: 'DatabaseClosedError' }, /reload the page/],
    [new Error('Quota was exceeded'), /storage is full/],
    [new ReedError('range', 'The name must have a letter.'), /^The name must have a letter$/],
    [undefined, /try again, or export/],
  ])('%p is said in words that follow “because”', (error, words) => {
    expect(storageProblem(error)).toMatch(words);
    expect(storageProblem(error)).not.toMatch(/\.$/);
  });
});
