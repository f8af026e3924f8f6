'use client';

import { Modal } from 'antd';
import { printKeys, useCommandStore, useShell, type Command } from './commands';
import styles from './shortcuts-window.module.css';

const IN_PLACE: [string, string][] = [
  ['Enter', 'on a value: edit it; in a field: take it'],
  ['Esc', 'leave a field or window unchanged'],
  ['← →', 'on the picture: move the cursor, with Shift by a third of an octave'],
  ['Enter', 'on the picture: pin a reading at the cursor'],
];

/** All shortcuts of the present screen. */
export function ShortcutsWindow() {
  const open = useShell((s) => s.open === 'shortcuts');
  const lists = useCommandStore((s) => s.lists);
  const groups = new Map<string, Command[]>();
  for (const command of [...lists.values()].flat()) {
    if (command.keys) groups.set(command.group, [...(groups.get(command.group) ?? []), command]);
  }
  return (
    <Modal
      open={open}
      forceRender
      onCancel={() => useShell.setState({ open: null })}
      footer={null}
      title="Shortcuts"
      width={640}
    >
      <div className={styles.columns}>
        {[...groups].map(([group, commands]) => (
          <section key={group}>
            <h3 className={styles.heading}>{group}</h3>
            {commands.map((command) => (
              <Row key={command.id} keys={printKeys(command.keys!)} what={command.title} />
            ))}
          </section>
        ))}
        <section>
          <h3 className={styles.heading}>In place</h3>
          {IN_PLACE.map(([keys, what]) => (
            <Row key={what} keys={keys} what={what} />
          ))}
        </section>
      </div>
    </Modal>
  );
}

function Row({ keys, what }: { keys: string; what: string }) {
  return (
    <div className={styles.row}>
      <kbd className={styles.keys}>{keys}</kbd>
      <span>{what}</span>
    </div>
  );
}
