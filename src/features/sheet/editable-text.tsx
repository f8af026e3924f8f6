'use client';

import { Input } from 'antd';
import { useState } from 'react';
import { attempt } from '../shell/tell';
import styles from './editable-text.module.css';

/** A name in running text that turns into a field where it stands. */
export function EditableText({
  label,
  value,
  className,
  onCommit,
}: {
  label: string;
  value: string;
  className?: string;
  onCommit: (text: string) => void;
}) {
  const [editing, setEditing] = useState(false);
  const take = (text: string) => {
    const clean = text.trim();
    if (clean !== '' && clean !== value) attempt(() => onCommit(clean));
    setEditing(false);
  };
  if (!editing) {
    return (
      <button
        type="button"
        className={`${styles.word} ${className ?? ''}`}
        aria-label={`${label}: ${value}`}
        onClick={() => setEditing(true)}
      >
        {value}
      </button>
    );
  }
  return (
    <Input
      size="small"
      className={styles.input}
      aria-label={label}
      defaultValue={value}
      maxLength={60}
      autoFocus
      onFocus={(e) => e.target.select()}
      onBlur={(e) => take(e.target.value)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') take(e.currentTarget.value);
        if (e.key === 'Escape') setEditing(false);
      }}
    />
  );
}
