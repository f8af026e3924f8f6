'use client';

import { Dropdown } from 'antd';
import { attempt } from '../shell/tell';
import styles from './ask-sentence.module.css';

export interface Choice<T> {
  value: T;
  /** The word in the sentence, and the line in the list. */
  word: string;
  line?: string;
}

export interface ChoiceWordProps<T> {
  label: string;
  value: T;
  choices: readonly Choice<T>[];
  onChoose: (value: T) => void;
}

/** A marked word that opens the list of what could stand in its place. */
export function ChoiceWord<T extends string | number>({
  label,
  value,
  choices,
  onChoose,
}: ChoiceWordProps<T>) {
  const word = choices.find((c) => c.value === value)?.word ?? String(value);
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        selectedKeys: [String(value)],
        items: choices.map((c) => ({ key: String(c.value), label: c.line ?? c.word })),
        onClick: ({ key }) => {
          const chosen = choices.find((c) => String(c.value) === key);
          if (!chosen || chosen.value === value) return;
          attempt(() => onChoose(chosen.value), 'choice');
        },
      }}
    >
      <button
        type="button"
        className={styles.word}
        aria-label={`${label}: ${word}`}
        aria-haspopup="menu"
      >
        {word}
      </button>
    </Dropdown>
  );
}
