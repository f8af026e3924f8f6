import { placeWords } from '@/core/bench/place-words';
import { Button, Segmented, Select } from 'antd';
import { useState } from 'react';
import { netsOf } from '@/core/circuit/schema';
import type { Comparison } from '@/core/bench/compare';
import type { PracticeBoard } from '@/core/practice/deal';
import { COSTS } from '@/core/practice/measure';
import type { Asked } from '@/core/practice/record';
import { formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';

import styles from './practice.module.css';

type Kind = Asked['is'];

const KINDS: readonly { value: Kind; label: string }[] = [
  { value: 'sweep', label: 'Sweep' },
  { value: 'level', label: 'Level' },
  { value: 'resistance', label: 'Ohms' },
  { value: 'part', label: 'Lift' },
];

interface MeasureProps {
  board: PracticeBoard;
  meeting: Comparison['meeting'];
  /** Parts that can be lifted. */
  parts: readonly string[];
  onAsk: (asked: Asked) => void;
}

/** What to measure next, and what that costs. */
export function MeasureForm({ board, meeting, parts, onAsk }: MeasureProps) {
  const { circuit, probe } = board.sound;
  const mark = usePreferences((p) => p.mark);
  const [kind, setKind] = useState<Kind>('sweep');
  const [net, setNet] = useState(probe);
  const [other, setOther] = useState(circuit.ground);
  const [part, setPart] = useState(parts[0]);
  const [hz, setHz] = useState(1000);
  const options = [...netsOf(circuit).filter((n) => n in meeting), circuit.ground].map((value) => ({
    value,
    label: placeWords(value, meeting),
  }));
  const asked = ((): Asked => {
    switch (kind) {
      case 'sweep':
        return { is: 'sweep', net };
      case 'level':
        return { is: 'level', net, hz };
      case 'resistance':
        return { is: 'resistance', between: [net, other] };
      case 'part':
        return { is: 'part', part };
    }
  })();
  const canAsk =
    kind === 'part' || (kind === 'resistance' ? net !== other : net !== circuit.ground);
  return (
    <form
      className={styles.form}
      aria-label="Measure"
      onSubmit={(e) => {
        e.preventDefault();
        if (canAsk) onAsk(asked);
      }}
    >
      <Segmented<Kind>
        block
        aria-label="What is measured"
        value={kind}
        options={[...KINDS]}
        onChange={setKind}
      />
      {kind === 'part' ? (
        <label>
          Which part, with one leg lifted
          <Select
            aria-label="Which part is lifted"
            value={part}
            options={parts.map((value) => ({ value, label: value }))}
            onChange={setPart}
          />
        </label>
      ) : (
        <label>
          {kind === 'resistance' ? 'From' : 'Where'}
          <Select
            aria-label="Where it is measured"
            value={net}
            options={options}
            onChange={setNet}
          />
        </label>
      )}
      {kind === 'resistance' && (
        <label>
          To
          <Select
            aria-label="Where it is measured to"
            value={other}
            options={options}
            onChange={setOther}
          />
        </label>
      )}
      {kind === 'level' && (
        <p>
          at{' '}
          <EditableQuantity
            label="Frequency of the level"
            shown={formatQuantity(hz, 'hertz', { digits: 3, unit: true, mark })}
            value={hz}
            kind="hertz"
            mark={mark}
            width={96}
            onCommit={(value) => {
              if (value !== null) setHz(value);
            }}
          />
        </p>
      )}
      {kind === 'resistance' && (
        <p className={styles.caution}>
          ⚠ Power off, and capacitors empty: they hold their charge for minutes.
        </p>
      )}
      {kind === 'part' && (
        <p className={styles.caution}>⚠ The iron burns, and its fumes irritate: moving air.</p>
      )}
      <Button type="primary" htmlType="submit" disabled={!canAsk}>
        Measure, for {COSTS[kind]}
      </Button>
    </form>
  );
}
