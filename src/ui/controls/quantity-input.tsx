'use client';

import { Input, type InputRef } from 'antd';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { messageOf } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { LONGEST_QUANTITY, parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import styles from './quantity-input.module.css';

export interface QuantityInputProps {
  label: string;
  value: number | null;
  kind: QuantityKind;
  mark: DecimalMark;
  /** Called with a value that was read well; what it throws is shown beside the field. */
  onCommit: (value: number | null) => void;
  onDone: () => void;
  /** Let the field be emptied; commits null. */
  clearable?: boolean;
  width?: number;
}

/** A field for one engineering value. Enter or leaving it commits, Escape gives up, errors say what was expected. */
export function QuantityInput({
  label,
  value,
  kind,
  mark,
  onCommit,
  onDone,
  clearable,
  width = 84,
}: QuantityInputProps) {
  const [text, setText] = useState(() =>
    value === null ? '' : formatQuantity(value, kind, { digits: 6, mark }).replace('−', '-'),
  );
  const [error, setError] = useState<string>();
  const input = useRef<InputRef>(null);
  const settled = useRef(false);
  const errorId = useId();
  const original = useRef(text);
  useEffect(() => {
    input.current?.focus({ cursor: 'all', preventScroll: true });
  }, []);

  const commit = () => {
    if (settled.current) return;
    try {
      if (text !== original.current)
        onCommit(clearable && text.trim() === '' ? null : parseQuantity(text, kind, mark));
      settled.current = true;
      onDone();
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const onKey = (event: KeyboardEvent) => {
    event.stopPropagation();
    // The focus moves on at once; without this the same key would press what it lands on.
    if (event.key === 'Enter' || event.key === 'Escape') event.preventDefault();
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') {
      settled.current = true;
      onDone();
    }
  };
  return (
    <span className={styles.host}>
      <Input
        ref={input}
        size="small"
        className={styles.input}
        style={{ width }}
        status={error === undefined ? undefined : 'error'}
        aria-label={label}
        aria-invalid={error !== undefined}
        aria-describedby={error ? errorId : undefined}
        value={text}
        maxLength={LONGEST_QUANTITY}
        onChange={(e) => {
          setText(e.target.value);
          setError(undefined);
        }}
        onKeyDown={onKey}
        onBlur={commit}
        inputMode="text"
        autoComplete="off"
        spellCheck={false}
      />
      {error && (
        <span id={errorId} role="alert" className={styles.error}>
          {error}
        </span>
      )}
    </span>
  );
}
