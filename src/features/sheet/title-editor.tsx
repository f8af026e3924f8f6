'use client';

import { Input } from 'antd';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import styles from './sheet-header.module.css';

/** The field in which a sheet is renamed. */
export function TitleEditor({
  title,
  onTake,
  onCancel,
}: {
  title: string;
  onTake: (text: string) => void;
  onCancel: () => void;
}) {
  return (
    <Input
      className={styles.titleInput}
      aria-label="Name of the sheet"
      defaultValue={title}
      maxLength={SHEET_LIMITS.name}
      autoFocus
      onFocus={(e) => e.target.select()}
      onBlur={(e) => onTake(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') onTake(e.currentTarget.value);
        if (e.key === 'Escape') onCancel();
      }}
    />
  );
}
