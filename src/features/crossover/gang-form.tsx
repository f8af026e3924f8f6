import { Button, Select } from 'antd';
import { useState } from 'react';
import type { GangPlan } from '@/core/crossover/gang';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { gangEdge } from './actions';
import styles from './ways-strip.module.css';

interface Props {
  split: number;
  hz: number;
  /** Names of the two ways that meet there. */
  lower: string;
  upper: string;
  onDone: () => void;
}

/** One knob for the sections that meet at a split: which follow it, and how far it goes. */
export function GangForm({ split, hz, lower, upper, onDone }: Props) {
  const mark = usePreferences((p) => p.mark);
  const [plan, setPlan] = useState<Pick<GangPlan, 'ways' | 'fromHz' | 'toHz'>>({
    ways: 'both',
    fromHz: rounded(hz / 2),
    toHz: rounded(hz * 2),
  });
  const range = (name: 'fromHz' | 'toHz', label: string) => (
    <label>
      {label}
      <EditableQuantity
        label={label}
        value={plan[name]}
        kind="hertz"
        mark={mark}
        shown={formatQuantity(plan[name], 'hertz', { unit: true, mark, digits: 3 })}
        onCommit={(x) => setPlan({ ...plan, [name]: x! })}
      />
    </label>
  );
  return (
    <div className={styles.form}>
      <p>Tracks on one shaft take the place of the resistors that set the edges.</p>
      <label>
        It moves
        <Select
          size="small"
          aria-label="It moves"
          value={plan.ways}
          options={[
            { value: 'both' as const, label: `${lower} and ${upper}` },
            { value: 'lower' as const, label: `${lower} alone` },
          ]}
          onChange={(ways) => setPlan({ ...plan, ways })}
          popupMatchSelectWidth={false}
        />
      </label>
      {range('fromHz', 'From')}
      {range('toHz', 'To')}
      <Button
        size="small"
        type="primary"
        onClick={() => {
          if (attempt(() => gangEdge({ ...plan, split, name: `${lower} to ${upper}` }))) onDone();
        }}
      >
        Put the knob in
      </Button>
    </div>
  );
}

const rounded = (hz: number): number => Number(hz.toPrecision(2));
