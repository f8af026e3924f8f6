'use client';

import { useHotkeys } from 'react-hotkeys-hook';
import { useCommandStore, useCommands, useShell, type Command } from './commands';

const SHELL_COMMANDS: readonly Command[] = [
  {
    id: 'palette',
    title: 'Find a command',
    group: 'Everywhere',
    keys: 'mod+k',
    run: () => useShell.setState({ open: 'palette' }),
  },
  {
    id: 'shortcuts',
    title: 'Show all shortcuts',
    group: 'Everywhere',
    keys: '?',
    run: () => useShell.setState({ open: 'shortcuts' }),
  },
  {
    id: 'preferences',
    title: 'Preferences',
    group: 'Everywhere',
    keys: 'mod+comma',
    run: () => useShell.setState({ open: 'preferences' }),
  },
];

/** Binds the keys of every command on offer. */
export function HotkeyBindings() {
  useCommands('shell', SHELL_COMMANDS);
  const lists = useCommandStore((s) => s.lists);
  return [...lists.values()]
    .flat()
    .map(
      (command) =>
        command.keys && (
          <Binding key={`${command.id} ${command.keys}`} command={command} keys={command.keys} />
        ),
    );
}

/** What is typed into; fields that are pressed or slid take no letters. */
const TYPED =
  'input:not([type=radio], [type=checkbox], [type=range], [role=slider], [readonly]), textarea, select, [role=textbox], [role=searchbox], [role=spinbutton], [contenteditable=true]';
/** Menus and lists, where letters may mean an entry; one that is just closing keeps the focus for a moment. */
const LISTED = '[role^=menuitem], [role=option]';

function isTakenBy(target: EventTarget | null, keys: string): boolean {
  if (!(target instanceof Element)) return false;
  return target.matches(TYPED) || (!keys.startsWith('mod+') && target.matches(LISTED));
}

/** Letters and signs are matched by what they print; chords by the key that is struck. */
function Binding({ command, keys }: { command: Command; keys: string }) {
  const prints = !keys.includes('+');
  const shell = command.group === 'Everywhere';
  useHotkeys(
    keys,
    () => {
      const { open, coming } = useShell.getState();
      if (shell || (open === null && coming === 0)) command.run();
    },
    {
      preventDefault: true,
      useKey: prints,
      // A sign may need Shift or another key on some keyboards; what counts is that it was typed.
      ignoreModifiers: keys === '?',
      enableOnFormTags: true,
      ignoreEventWhen: ({ target }) => keys !== 'mod+k' && isTakenBy(target, keys),
    },
    [command],
  );
  return null;
}
