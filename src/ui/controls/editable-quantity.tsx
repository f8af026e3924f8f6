'use client';

import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { QuantityInputProps } from './quantity-input';
import styles from './quantity-input.module.css';

/** Values are read more often than written: the field is fetched at leisure, or when first wanted. */
export const fetchField = () =>
  import('./quantity-input').then((m) => ({ default: m.QuantityInput }));
/** To be rendered within a Suspense. */
export const QuantityField = lazy(fetchField);

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
  if (editing)
    return (
      <Suspense fallback={<span className={styles.word}>{shown}</span>}>
        <QuantityField {...field} onDone={() => setEditing(false)} />
      </Suspense>
    );
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
