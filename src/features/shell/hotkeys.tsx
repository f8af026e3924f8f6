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
      // A slider takes arrows, and letters mean there what they mean elsewhere.
      enableOnFormTags: keys === 'mod+k' || ['slider'],
    },
    [command],
  );
  return null;
}
