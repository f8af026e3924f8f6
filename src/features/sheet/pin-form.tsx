'use client';

import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { mainHz, type Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { HALF_POWER_DB } from '@/core/response/decibels';
import type { Measure } from '@/core/response/readings';
import { usePreferences } from '@/store/preferences';
import { addReading } from './actions';
import { setUi, useUi } from './ui-state';
import styles from './forms.module.css';

type MeasureName = Exclude<Measure['measure'], 'range'> | 'highest' | 'lowest';

const MEASURES: { value: MeasureName; label: string }[] = [
  { value: 'level', label: 'Level at a frequency' },
  { value: 'edge', label: 'Edge, so many dB down' },
  { value: 'phase', label: 'Phase at a frequency' },
  { value: 'slope', label: 'Slope between two frequencies' },
  { value: 'lowest', label: 'Lowest between two frequencies' },
  { value: 'highest', label: 'Highest between two frequencies' },
  { value: 'peak-level', label: 'Highest point' },
  { value: 'peak-frequency', label: 'Frequency of the highest point' },
  { value: 'plateau', label: 'Plateau' },
];

/** As it stands in the field; taken to all its digits when it was left so. */
const HALF_POWER = HALF_POWER_DB.toFixed(2);

const REFERENCES = [
  { value: 'source', label: 'source' },
  { value: 'plateau', label: 'plateau' },
  { value: 'peak', label: 'highest point' },
] as const;

/** Pin another number; frequencies start at the cursor. */
export function PinForm({ ask }: { ask: Ask }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz) ?? mainHz(ask);
  const print = (hz: number) => formatQuantity(hz, 'hertz', { digits: 4, mark });
  const [name, setName] = useState<MeasureName>('level');
  const [at, setAt] = useState(print(cursorHz));
  const [to, setTo] = useState(print(cursorHz * 2));
  const [down, setDown] = useState(HALF_POWER);
  const [side, setSide] = useState<'upper' | 'lower'>(ask.kind === 'low-pass' ? 'upper' : 'lower');
  const [from, setFrom] = useState<'source' | 'plateau' | 'peak'>('source');
  const [error, setError] = useState<string>();

  const between = name === 'slope' || name === 'lowest' || name === 'highest';

  const pin = () => {
    try {
      addReading({ measure: measureOf() });
      setUi({ pinning: false });
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const measureOf = (): Measure => {
    switch (name) {
      case 'level':
        return {
          measure: name,
          atHz: frequency(at),
          ...(from === 'source' ? {} : { reference: { from } }),
        };
      case 'phase':
        return { measure: name, atHz: frequency(at) };
      case 'slope':
        return { measure: name, fromHz: frequency(at), toHz: frequency(to) };
      case 'lowest':
      case 'highest':
        return {
          measure: 'range',
          end: name,
          fromHz: frequency(at),
          toHz: frequency(to),
          ...(from === 'source' ? {} : { reference: { from } }),
        };
      case 'edge': {
        const typed = down.trim().replace(',', '.');
        const downDb =
          typed === HALF_POWER ? HALF_POWER_DB : Math.abs(parseQuantity(down, 'decibels', mark));
        if (downDb === 0) throw new Error('An edge must be some dB down: enter more than 0.');
        return {
          measure: name,
          downDb,
          side,
          reference: { from: from === 'source' ? 'plateau' : from },
        };
      }
      default:
        return { measure: name };
    }
  };
  const frequency = (text: string): number => {
    const hz = parseQuantity(text, 'hertz', mark);
    if (!(hz > 0)) throw new Error('A frequency must be above 0 Hz.');
    return hz;
  };
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        pin();
      }}
    >
      <label>
        What
        <Select
          value={name}
          options={MEASURES}
          onChange={setName}
          aria-label="What to read"
          autoFocus
        />
      </label>
      {(name === 'level' || name === 'phase') && <Field label="At" value={at} onChange={setAt} />}
      {between && (
        <>
          <Field label="From" value={at} onChange={setAt} />
          <Field label="To" value={to} onChange={setTo} />
        </>
      )}
      {name === 'edge' && (
        <Field label="dB down (3.01 is half power)" value={down} onChange={setDown} />
      )}
      {(name === 'level' || name === 'lowest' || name === 'highest' || name === 'edge') && (
        <label>
          Counted from the
          <Select
            value={name === 'edge' && from === 'source' ? 'plateau' : from}
            onChange={setFrom}
            aria-label="Counted from the"
            options={REFERENCES.filter((r) => name !== 'edge' || r.value !== 'source')}
          />
        </label>
      )}
      {name === 'edge' && (
        <>
          <label>
            Side
            <Select
              value={side}
              onChange={setSide}
              aria-label="Side"
              options={[
                { value: 'upper', label: 'towards high frequencies' },
                { value: 'lower', label: 'towards low frequencies' },
              ]}
            />
          </label>
        </>
      )}
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
      <Button type="primary" htmlType="submit" block>
        Pin this reading
      </Button>
    </form>
  );
}

export function Field({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <label>
      {label}
      <Input
        value={value}
        maxLength={60}
        onChange={(e) => onChange(e.target.value)}
        autoComplete="off"
        spellCheck={false}
      />
    </label>
  );
}
