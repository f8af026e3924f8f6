import { Button, Select } from 'antd';
import { useState } from 'react';
import { BLAMED_COST } from '@/core/practice/measure';
import styles from './practice.module.css';

interface BlameProps {
  parts: readonly string[];
  /** What was blamed last, and was good. */
  wrong: readonly string[] | undefined;
  onBlame: (parts: string[]) => void;
  onShow: () => void;
}

/** Most parts that are wrong at once. */
const MOST = 2;

/** Names the culprit; or gives up, and is shown. */
export function BlameForm({ parts, wrong, onBlame, onShow }: BlameProps) {
  const [named, setNamed] = useState<string[]>([]);
  return (
    <form
      className={styles.form}
      aria-label="Name the culprit"
      onSubmit={(e) => {
        e.preventDefault();
        if (named.length === 0) return;
        onBlame(named);
        setNamed([]);
      }}
    >
      <label>
        Which part is it, or which two
        <Select
          mode="multiple"
          maxCount={MOST}
          aria-label="Which part is it"
          placeholder="R1, or two"
          value={named}
          options={parts.map((value) => ({ value, label: value }))}
          onChange={setNamed}
        />
      </label>
      <div className={styles.buttons}>
        <Button htmlType="submit" disabled={named.length === 0}>
          It is this
        </Button>
        <Button type="text" onClick={onShow}>
          Show me
        </Button>
      </div>
      <p role="status" className={wrong ? styles.bad : styles.small}>
        {wrong
          ? `Not ${wrong.join(' and ')}: taken out, measured, and put back, for ${BLAMED_COST}.`
          : `A part that is blamed and is good costs ${BLAMED_COST}.`}
      </p>
    </form>
  );
}
