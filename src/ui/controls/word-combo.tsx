'use client';

import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import styles from './word-combo.module.css';

export interface WordOption {
  value: string;
  /** The word in the sentence. */
  word: string;
  /** What else it may be looked for by. */
  aliases?: readonly string[];
}

export interface WordComboProps {
  label: string;
  options: readonly WordOption[];
  value: string;
  onChange: (value: string) => void;
  /** The option that is looked at while the list is open. */
  onLook?: (value: string | null) => void;
  autoFocus?: boolean;
}

/**
 * A word of a sentence that is one of several: typed letters narrow them, the arrow keys go through
 * them, Tab takes the one that is marked and moves on. Enter takes it and is left to the sentence.
 */
export function WordCombo({ label, options, value, onChange, onLook, autoFocus }: WordComboProps) {
  const chosen = options.find((o) => o.value === value)?.word ?? '';
  const [text, setText] = useState<string | null>(null);
  /** Whether letters were typed, or the list was only opened. */
  const [typed, setTyped] = useState(false);
  const [mark, setMark] = useState(0);
  const listId = useId();
  const field = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLUListElement>(null);
  const open = text !== null;
  const found = open ? narrowed(options, typed ? text : '') : [];
  const marked = found[Math.min(mark, found.length - 1)];
  useEffect(() => {
    if (autoFocus) field.current?.focus();
  }, [autoFocus]);
  useEffect(() => {
    list.current?.children[mark]?.scrollIntoView({ block: 'nearest' });
  }, [mark]);
  const look = (at: number, among = found) => {
    setMark(at);
    onLook?.(among[at]?.value ?? null);
  };
  const take = (option: WordOption | undefined) => {
    if (option && option.value !== value) onChange(option.value);
    setText(null);
    setTyped(false);
    setMark(0);
    onLook?.(null);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const all = open ? found : options;
      if (!open) setText(chosen);
      const step = event.key === 'ArrowDown' ? 1 : -1;
      const from = open ? mark : all.findIndex((o) => o.value === value);
      look(Math.max(0, Math.min(all.length - 1, from + step)), [...all]);
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      if (open) take(marked);
    } else if (event.key === 'Escape' && open) {
      event.stopPropagation();
      take(undefined);
    }
  };
  return (
    <span className={styles.host}>
      <input
        ref={field}
        className={styles.field}
        style={{ width: `${Math.max(4, (text ?? chosen).length + 1)}ch` }}
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={open && marked ? `${listId}-${marked.value}` : undefined}
        value={text ?? chosen}
        maxLength={60}
        autoComplete="off"
        spellCheck={false}
        onFocus={(e) => e.target.select()}
        onClick={(e) => {
          setText(chosen);
          // A click would put the caret into the word instead of letting it be typed over.
          e.currentTarget.select();
        }}
        onChange={(e) => {
          setText(e.target.value);
          setTyped(true);
          look(0, narrowed(options, e.target.value));
        }}
        onKeyDown={onKey}
        onBlur={() => open && take(text === '' ? undefined : marked)}
      />
      {open && (
        <ul ref={list} id={listId} role="listbox" aria-label={label} className={styles.list}>
          {found.map((o, i) => (
            <li
              key={o.value}
              id={`${listId}-${o.value}`}
              role="option"
              aria-selected={o === marked}
              className={o === marked ? styles.marked : undefined}
              onPointerEnter={() => look(i)}
              onPointerDown={(e) => {
                e.preventDefault();
                take(o);
              }}
            >
              {o.word}
            </li>
          ))}
          {found.length === 0 && <li className={styles.none}>nothing is called that</li>}
        </ul>
      )}
    </span>
  );
}

/** Options that begin with the letters, then those that have them somewhere. */
function narrowed(options: readonly WordOption[], text: string): WordOption[] {
  const wanted = text.trim().toLowerCase();
  const rank = ({ word, aliases = [] }: WordOption): number => {
    const names = [word, ...aliases].map((n) => n.toLowerCase());
    if (names.includes(wanted)) return 0;
    if (names.some((n) => n.startsWith(wanted))) return 1;
    return names.some((n) => n.includes(wanted)) ? 2 : 3;
  };
  return options
    .map((o, i) => ({ o, i, r: rank(o) }))
    .filter(({ r }) => r < 3)
    .sort((a, b) => a.r - b.r || a.i - b.i)
    .map(({ o }) => o);
}
