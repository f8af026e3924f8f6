'use client';

import { Modal } from 'antd';
import { Command as Palette } from 'cmdk';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useCards } from '../shelf/use-cards';
import { sheetAddress } from './sheet-address';
import { printKeys, useCommandStore, useShell, type Command } from './commands';
import { useGo } from './leave-guard';
import styles from './command-palette.module.css';

/** As many lines as anyone reads; typing on narrows them. */
const MOST = 60;

/** Every action by name, and every sheet by name and by what it does. */
export function CommandPalette() {
  const open = useShell((s) => s.open === 'palette');
  const close = () => useShell.setState({ open: null });
  return (
    <Modal
      open={open}
      forceRender
      onCancel={close}
      footer={null}
      closable={false}
      width={560}
      title={null}
      aria-label="Find a command"
      styles={{ container: { padding: 0 } }}
    >
      {open && <Finder onDone={close} />}
    </Modal>
  );
}

function Finder({ onDone }: { onDone: () => void }) {
  const [query, setQuery] = useState('');
  const input = useRef<HTMLInputElement>(null);
  // The window that stood ready is still hidden now, and takes the focus only in the next frame.
  useEffect(() => {
    const frame = requestAnimationFrame(() => input.current?.focus());
    return () => cancelAnimationFrame(frame);
  }, []);
  const lists = useCommandStore((s) => s.lists);
  const sheets = useSheets();
  const commands = useMemo(
    () => [...[...lists.values()].flat().filter((c) => c.id !== 'palette'), ...sheets],
    [lists, sheets],
  );
  const found = useMemo(() => best(commands, query), [commands, query]);
  return (
    <Palette label="Find a command" loop shouldFilter={false} className={styles.palette}>
      <Palette.Input
        ref={input}
        value={query}
        onValueChange={setQuery}
        maxLength={100}
        placeholder="What would you like to do, or open?"
        className={styles.input}
      />
      <Palette.List className={styles.list}>
        <Palette.Empty className={styles.empty}>No command or sheet has these words.</Palette.Empty>
        {found.slice(0, MOST).map((command) => (
          <Palette.Item
            key={command.id}
            value={command.id}
            className={styles.item}
            onSelect={() => {
              onDone();
              // After the window has given the focus back.
              setTimeout(command.run, 0);
            }}
          >
            <span>{command.title}</span>
            <span className={styles.group}>{command.group}</span>
            {command.keys && <kbd className={styles.keys}>{printKeys(command.keys)}</kbd>}
          </Palette.Item>
        ))}
        {found.length > MOST && (
          <p className={styles.empty}>and {found.length - MOST} more: type on to narrow them</p>
        )}
      </Palette.List>
    </Palette>
  );
}

/** Commands that hold every typed word; those whose title begins with them first. */
function best(commands: readonly Command[], query: string): Command[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [...commands];
  const rank = ({ title, group, words: more = '' }: Command) => {
    const name = title.toLowerCase();
    const all = `${name} ${group.toLowerCase()} ${more}`;
    if (!words.every((w) => all.includes(w))) return 0;
    if (!words.every((w) => name.includes(w))) return 1;
    return name.startsWith(words[0]) ? 3 : 2;
  };
  return commands
    .map((command) => ({ command, rank: rank(command) }))
    .filter((c) => c.rank > 0)
    .sort((a, b) => b.rank - a.rank)
    .map((c) => c.command);
}

function useSheets(): Command[] {
  const go = useGo();
  const cards = useCards();
  return useMemo(
    () =>
      (cards ?? [])
        .filter((c) => c.deletedAt === null && c.problem === undefined)
        .map(({ id, title, words }) => ({
          id: `open-${id}`,
          title: `Open: ${title}`,
          group: 'Shelf',
          words,
          run: () => go(sheetAddress(id)),
        })),
    [cards, go],
  );
}
