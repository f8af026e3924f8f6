'use client';

import { Button, Select } from 'antd';
import { SERIES_NAMES } from '@/core/quantity/series';
import type { Sheet } from '@/core/sheet/schema';
import { attempt } from '../shell/tell';
import { changeParts, fitAgain } from './actions';
import { setUi } from './ui-state';
import styles from './sheet-header.module.css';

const SERIES_OPTIONS = [
  ...SERIES_NAMES.filter((n) => n !== 'E3').map((n) => ({
    value: n,
    label: n,
  })),
  { value: 'exact' as const, label: 'exact' },
];

/** Series to choose from, and choosing every value again. */
export function FitForm({ parts }: Pick<Sheet, 'parts'>) {
  return (
    <div className={styles.fit}>
      <label>
        Resistors from
        <Select
          size="small"
          value={parts.resistors}
          options={SERIES_OPTIONS}
          onChange={(resistors) => attempt(() => changeParts({ resistors }))}
          aria-label="Resistors from"
        />
      </label>
      <label>
        Capacitors from
        <Select
          size="small"
          value={parts.capacitors}
          options={SERIES_OPTIONS}
          onChange={(capacitors) => attempt(() => changeParts({ capacitors }))}
          aria-label="Capacitors from"
        />
      </label>
      <label>
        Coils from
        <Select
          size="small"
          value={parts.inductors}
          options={SERIES_OPTIONS}
          onChange={(inductors) => attempt(() => changeParts({ inductors }))}
          aria-label="Coils from"
        />
      </label>
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
