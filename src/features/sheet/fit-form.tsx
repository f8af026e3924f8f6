'use client';

import { Button, Select } from 'antd';
import { SERIES_NAMES } from '@/core/quantity/series';
import type { Sheet } from '@/core/sheet/schema';
import { attempt } from '../shell/tell';
import { changeParts, fitAgain } from './actions/parts';
import { setUi } from './ui-state';
import styles from './sheet-header.module.css';

const SERIES_OPTIONS = [
  ...SERIES_NAMES.filter((n) => n !== 'E3').map((n) => ({
    value: n,
    label: n,
  })),
  { value: 'exact' as const, label: 'exact' },
];

/** What is bought from a series. */
const BOUGHT = [
  { kind: 'resistors', noun: 'Resistors' },
  { kind: 'capacitors', noun: 'Capacitors' },
  { kind: 'inductors', noun: 'Coils' },
] as const;

/** Series to choose from, and choosing every value again. */
export function FitForm({ parts }: Pick<Sheet, 'parts'>) {
  return (
    <div className={styles.fit}>
      {BOUGHT.map(({ kind, noun }) => (
        <label key={kind}>
          {noun} from
          <Select
            size="small"
            value={parts[kind]}
            options={SERIES_OPTIONS}
            onChange={(series) => attempt(() => changeParts({ [kind]: series }))}
            aria-label={`${noun} from`}
          />
        </label>
      ))}
      <p>
        Each exact value is replaced by the nearest of its series. Values you typed are replaced
        too.
      </p>
      <Button
        block
        onClick={() => {
          if (attempt(fitAgain)) setUi({ fitting: false });
        }}
      >
        Choose all values again
      </Button>
    </div>
  );
}
