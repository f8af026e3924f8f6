import { Input } from 'antd';
import { useState } from 'react';
import { BOOK_LIMITS } from '@/core/book/entry';
import { changeEntry } from '@/store/book';
import { attemptStored } from '../shell/tell';
import styles from './book.module.css';

/** Why it was done, in the person’s own words: stored when the field is left. */
export function NoteField({ id, note, label }: { id: string; note: string; label: string }) {
  const [typed, setTyped] = useState<string | null>(null);
  const store = async () => {
    if (typed === null || typed === note) return;
    const done = await attemptStored('The note was not stored', () =>
      changeEntry(id, () => ({ note: typed })),
    );
    if (done) setTyped(null);
  };
  return (
    <Input.TextArea
      className={styles.note}
      aria-label={label}
      placeholder="Why, what was heard, what to try next …"
      rows={2}
      maxLength={BOOK_LIMITS.note}
      value={typed ?? note}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => void store()}
    />
  );
}
