'use client';

import { Button, Select } from 'antd';
import { useState } from 'react';
import { messageOf } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { Reading, Wanted } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { changeReading } from './actions/readings';
import { Field } from './pin-form';
import styles from './forms.module.css';

/** What is wanted of a reading; acts when "Take" is pressed, so that a half-typed number judges nothing. */
export function WantedForm({ reading }: { reading: Reading }) {
  const mark = usePreferences((p) => p.mark);
  const quantity = quantityOfMeasure(reading.measure);
  const relative = quantity === 'hertz';
  const { wanted } = reading;
  const [is, setIs] = useState<Wanted['is'] | 'nothing'>(wanted?.is ?? 'nothing');
  const [value, setValue] = useState(
    wanted ? formatQuantity(wanted.value, quantity, { digits: 6, mark }) : '',
  );
  const [tolerance, setTolerance] = useState(
    wanted?.is === 'near'
      ? formatQuantity(wanted.tolerance * (wanted.relative ? 100 : 1), 'ratio', { mark })
      : relative
        ? '3'
        : '0.5',
  );
  const [name, setName] = useState(reading.name ?? '');
  const [error, setError] = useState<string>();
  const [taken, setTaken] = useState(false);
  const take = () => {
    try {
      changeReading(reading.id, {
        wanted: wantedOf(),
        name: name.trim() === '' ? undefined : name.trim(),
      });
      setError(undefined);
      setTaken(true);
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const wantedOf = (): Wanted | undefined => {
    if (is === 'nothing') return undefined;
    const number = parseQuantity(value, quantity, mark);
    if (is !== 'near') return { is, value: number };
    const room = Math.abs(parseQuantity(tolerance.replace('%', ''), 'ratio', mark));
    return { is, value: number, relative, tolerance: relative ? room / 100 : room };
  };
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <label>
        Wanted
        <Select
          value={is}
          onChange={setIs}
          aria-label="Wanted"
          options={[
            { value: 'near', label: 'near' },
            { value: 'at-least', label: 'at least' },
            { value: 'at-most', label: 'at most' },
            { value: 'nothing', label: 'nothing in particular' },
          ]}
        />
      </label>
      {is !== 'nothing' && <Field label="Value" value={value} onChange={setValue} />}
      {is === 'near' && (
        <Field
          label={relative ? 'Within ± %' : 'Within ±'}
          value={tolerance}
          onChange={setTolerance}
        />
      )}
      <Field label="Called" value={name} onChange={setName} />
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
      <Button type="primary" htmlType="submit" block>
        {taken ? 'Taken' : 'Take'}
      </Button>
    </form>
  );
}
