import { Button, Popover } from 'antd';
import { Info } from 'lucide-react';
import type { Ask } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { roomNote } from '@/core/design/room';
import { messageOf } from '@/core/errors';
import styles from './ask-sentence.module.css';

/** What the ask's words mean, whether its limits are met, and what the circuit has of its own. */
export function AskNotes({ ask }: { ask: Ask }) {
  return (
    <Popover
      trigger="click"
      destroyOnHidden
      placement="bottom"
      content={<Notes ask={ask} />}
      title="What this comes to"
    >
      <Button
        type="text"
        size="small"
        className={styles.about}
        aria-label="What this comes to"
        title="What this comes to"
        icon={<Info size={14} aria-hidden />}
      />
    </Popover>
  );
}

function Notes({ ask }: { ask: Ask }) {
  return (
    <ul className={styles.notes}>
      {notesOf(ask).map((note) => (
        <li key={note}>{note}</li>
      ))}
    </ul>
  );
}

function notesOf(ask: Ask): string[] {
  try {
    return [...designAsk(ask).notes, ...roomNote(ask)];
  } catch (error) {
    return [messageOf(error)];
  }
}
