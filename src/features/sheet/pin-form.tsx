'use client';

import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { mainHz, type Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import type { Measure } from '@/core/response/readings';
import { usePreferences } from '@/store/preferences';
import { addReading } from './actions';
import { setUi, useUi } from './ui-state';
import styles from './forms.module.css';

type MeasureName = Measure['measure'];

const MEASURES: { value: MeasureName; label: string }[] = [
  { value: 'level', label: 'Level at a frequency' },
  { value: 'edge', label: 'Edge, so many dB down' },
  { value: 'phase', label: 'Phase at a frequency' },
  { value: 'slope', label: 'Slope between two frequencies' },
  { value: 'peak-level', label: 'Highest point' },
  { value: 'peak-frequency', label: 'Frequency of the highest point' },
  { value: 'plateau', label: 'Plateau' },
];

/** Pin another number; frequencies start at the cursor. */
export function PinForm({ ask }: { ask: Ask }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz) ?? mainHz(ask);
  const print = (hz: number) => formatQuantity(hz, 'hertz', { digits: 4, mark });
  const [name, setName] = useState<MeasureName>('level');
  const [at, setAt] = useState(print(cursorHz));
  const [to, setTo] = useState(print(cursorHz * 2));
  const [down, setDown] = useState('3');
  const [side, setSide] = useState<'upper' | 'lower'>(ask.kind === 'low-pass' ? 'upper' : 'lower');
  const [from, setFrom] = useState<'plateau' | 'peak'>('plateau');
  const [error, setError] = useState<string>();

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
      case 'phase':
        return { measure: name, atHz: frequency(at) };
      case 'slope':
        return { measure: name, fromHz: frequency(at), toHz: frequency(to) };
      case 'edge': {
        const downDb = Math.abs(parseQuantity(down, 'decibels', mark));
        if (downDb === 0) throw new Error('An edge must be some dB down: enter more than 0.');
        return { measure: name, downDb, side, reference: { from } };
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
      {(name === 'level' || name === 'phase' || name === 'slope') && (
        <Field label={name === 'slope' ? 'From' : 'At'} value={at} onChange={setAt} />
      )}
      {name === 'slope' && <Field label="To" value={to} onChange={setTo} />}
      {name === 'edge' && (
        <>
          <Field label="dB down" value={down} onChange={setDown} />
          <label>
            Under the
            <Select
              value={from}
              onChange={setFrom}
              aria-label="Under the"
              options={[
                { value: 'plateau', label: 'plateau' },
                { value: 'peak', label: 'highest point' },
              ]}
            />
          </label>
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
