'use client';

import { useEffect, useRef, useState } from 'react';
import { QuantityInput, type QuantityInputProps } from './quantity-input';
import styles from './quantity-input.module.css';

export interface EditableQuantityProps extends Omit<QuantityInputProps, 'onDone'> {
  /** How the value reads when it is not being edited. */
  shown: string;
  className?: string;
}

/** A value in running text: a marked word that turns into a field where it stands. */
export function EditableQuantity({ shown, className, ...field }: EditableQuantityProps) {
  const [editing, setEditing] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const back = useRef(false);
  useEffect(() => {
    if (!editing && back.current) button.current?.focus({ preventScroll: true });
    back.current = editing;
  }, [editing]);
  if (editing) return <QuantityInput {...field} onDone={() => setEditing(false)} />;
  return (
    <button
      ref={button}
      type="button"
      className={`${styles.word} ${className ?? ''}`}
      aria-label={`${field.label}: ${shown}`}
      onClick={() => setEditing(true)}
    >
      {shown}
    </button>
  );
}
