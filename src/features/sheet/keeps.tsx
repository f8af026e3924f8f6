'use client';

import { Button, Input, type InputRef } from 'antd';
import { Eye, EyeOff, Trash2 } from 'lucide-react';
import { useState, type Ref } from 'react';
import { messageOf } from '@/core/errors';
import type { Sheet } from '@/core/sheet/schema';
import { dateWords } from '@/ui/controls/date-words';
import { attempt } from '../shell/tell';
import { goBackTo, keepNow, removeKeep, showKeep } from './actions/keeps';
import { setUi } from './ui-state';
import styles from './keeps-button.module.css';

/** Snapshots: take one, lay it over the picture, go back to it. */
export function Keeps({ keeps, field }: Pick<Sheet, 'keeps'> & { field?: Ref<InputRef> }) {
  const [name, setName] = useState('');
  const [error, setError] = useState<string>();
  const keep = () => {
    try {
      keepNow(name);
      setName('');
      setUi({ keeping: false });
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  return (
    <div className={styles.keeps}>
      <form
        className={styles.new}
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <Input
          ref={field}
          className={styles.name}
          autoFocus
          aria-label="Name of the keep"
          placeholder={`Keep ${keeps.length + 1}`}
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="primary" htmlType="submit">
          Keep this state
        </Button>
      </form>
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
      {keeps.length === 0 && (
        <p className={styles.hint}>
          A keep holds the sheet as it is now. Its curve stays on the picture to compare against,
          and you can go back to it.
        </p>
      )}
      <Button
        size="small"
        className={styles.compare}
        onClick={() => setUi({ keeping: false, comparing: true })}
      >
        Compare two states
      </Button>
      <ul className={styles.list}>
        {keeps.map((k) => (
          <li key={k.id}>
            <Button
              size="small"
              type="text"
              icon={k.shown ? <Eye size={14} /> : <EyeOff size={14} />}
              aria-pressed={k.shown}
              aria-label={`Show keep ${k.name}`}
              title={k.shown ? 'On the picture' : 'Not on the picture'}
              onClick={() => attempt(() => showKeep(k.id, !k.shown))}
            />
            <span className={styles.called}>{k.name}</span>
            <span className={styles.when}>{dateWords(k.at, 'short')}</span>
            <Button
              size="small"
              onClick={() => attempt(() => goBackTo(k.id))}
              aria-label={`Go back to keep ${k.name}`}
            >
              Go back
            </Button>
            <Button
              size="small"
              type="text"
              icon={<Trash2 size={14} />}
              aria-label={`Remove keep ${k.name}`}
              onClick={() => removeKeep(k.id)}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}
