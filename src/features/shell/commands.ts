import { useEffect } from 'react';
import { create } from 'zustand';

/** Something a person can do by name, by the palette, or by a key. */
export interface Command {
  id: string;
  title: string;
  /** Where it stands in the list of shortcuts. */
  group: 'Everywhere' | 'Shelf' | 'Sheet' | 'Lens' | 'Path';
  /** Keys as react-hotkeys-hook writes them, e.g. "mod+z". */
  keys?: string;
  /** Further words that it is found by. */
  words?: string;
  run: () => unknown;
}

interface CommandState {
  lists: ReadonlyMap<string, readonly Command[]>;
  register: (owner: string, commands: readonly Command[]) => void;
  withdraw: (owner: string) => void;
}

/** The commands of whatever is on screen. */
export const useCommandStore = create<CommandState>()((set) => ({
  lists: new Map(),
  register: (owner, commands) =>
    set(({ lists }) => ({ lists: new Map(lists).set(owner, commands) })),
  withdraw: (owner) =>
    set(({ lists }) => {
      const rest = new Map(lists);
      rest.delete(owner);
      return { lists: rest };
    }),
}));

/** Offer commands while the calling component is mounted. The list must be stable between renders. */
export function useCommands(owner: string, commands: readonly Command[]): void {
  const { register, withdraw } = useCommandStore.getState();
  useEffect(() => {
    register(owner, commands);
    return () => withdraw(owner);
  }, [owner, commands, register, withdraw]);
}

/** Which of the shell's windows is open, and how many forms are on their way to the screen. */
export const useShell = create<{
  open: 'palette' | 'shortcuts' | 'preferences' | null;
  coming: number;
}>()(() => ({ open: null, coming: 0 }));

/** "mod+shift+z" as it is printed on this keyboard. */
export function printKeys(keys: string): string {
  const mac = typeof navigator !== 'undefined' && navigator.platform.startsWith('Mac');
  return keys
    .split(',')[0]
    .split('+')
    .map(
      (key) =>
        ({
          mod: mac ? '⌘' : 'Ctrl',
          shift: 'Shift',
          bracketleft: '[',
          bracketright: ']',
          slash: '/',
        })[key] ?? (key.length === 1 ? key.toUpperCase() : key),
    )
    .join(' ');
}
