'use client';

import { Modal } from 'antd';
import { Command as Palette } from 'cmdk';
import { printKeys, useCommandStore, useShell } from './commands';
import styles from './command-palette.module.css';

/** Every action by name. */
export function CommandPalette() {
  const open = useShell((s) => s.open === 'palette');
  const lists = useCommandStore((s) => s.lists);
  const commands = [...lists.values()].flat().filter((c) => c.id !== 'palette');
  const close = () => useShell.setState({ open: null });
  return (
    <Modal
      open={open}
      onCancel={close}
      footer={null}
      closable={false}
      width={560}
      title={null}
      destroyOnHidden
      aria-label="Find a command"
      styles={{ container: { padding: 0 } }}
    >
      <Palette label="Find a command" loop className={styles.palette}>
        <Palette.Input
          autoFocus
          placeholder="What would you like to do?"
          className={styles.input}
        />
        <Palette.List className={styles.list}>
          <Palette.Empty className={styles.empty}>No command has these words.</Palette.Empty>
          {commands.map((command) => (
            <Palette.Item
              key={command.id}
              value={`${command.title} ${command.group} ${command.id}`}
              className={styles.item}
              onSelect={() => {
                close();
                // After the window has given the focus back.
                setTimeout(command.run, 0);
              }}
            >
              <span>{command.title}</span>
              <span className={styles.group}>{command.group}</span>
              {command.keys && <kbd className={styles.keys}>{printKeys(command.keys)}</kbd>}
            </Palette.Item>
          ))}
        </Palette.List>
      </Palette>
    </Modal>
  );
}
