'use client';

import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { mainHz, type Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { MEASURE_CHOICES, type MeasureField } from '@/core/response/readings';
import { usePreferences } from '@/store/preferences';
import { addReading } from './actions';
import { measured, measureOf, startText } from './pin-measure';
import { setUi, useUi } from './ui-state';
import styles from './forms.module.css';

/** What is counted from, in words. */
const REFERENCES = { source: 'source', plateau: 'plateau', peak: 'highest point' } as const;

const SIDES = [
  { value: 'upper', label: 'towards high frequencies' },
  { value: 'lower', label: 'towards low frequencies' },
];

/** What was filled in so far, by the name of the field. */
type Filled = Readonly<Record<string, string>>;

/** Pin another number; frequencies start at the cursor. */
export function PinForm({ ask }: { ask: Ask }) {
  const mark = usePreferences((p) => p.mark);
  const cursorHz = useUi((s) => s.cursorHz) ?? mainHz(ask);
  const [index, setIndex] = useState(0);
  const [filled, setFilled] = useState<Filled>({
    side: ask.kind === 'low-pass' ? 'upper' : 'lower',
  });
  const [startHz] = useState(cursorHz);
  const [error, setError] = useState<string>();
  const choice = MEASURE_CHOICES[index];
  /** What stands in a field: what was filled in, or what it begins with. */
  const textOf = (field: MeasureField): string => {
    const start = () => startText(field, startHz, filled.side, mark);
    switch (field.is) {
      case 'hertz':
      case 'decibels':
        return filled[field.name] ?? start();
      case 'reference': {
        const said = field.among.find((name) => name === filled.reference);
        return said ?? start();
      }
      case 'side':
        return filled.side;
    }
  };
  const fill = (name: string) => (text: string) => setFilled((f) => ({ ...f, [name]: text }));
  const pin = () => {
    try {
      const fields = choice.fields.map((field) => measured(field, textOf(field), mark));
      addReading({ measure: measureOf(choice, Object.assign({}, ...fields) as object) });
      setUi({ pinning: false });
    } catch (failure) {
      setError(messageOf(failure));
    }
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
          value={index}
          options={MEASURE_CHOICES.map(({ title }, value) => ({ value, label: title }))}
          onChange={setIndex}
          aria-label="What to read"
          autoFocus
        />
      </label>
      {choice.fields.map((field) => {
        switch (field.is) {
          case 'hertz':
          case 'decibels':
            return (
              <Field
                key={field.name}
                label={field.label}
                value={textOf(field)}
                onChange={fill(field.name)}
              />
            );
          case 'reference':
            return (
              <Choice
                key="reference"
                label="Counted from the"
                value={textOf(field)}
                options={field.among.map((value) => ({ value, label: REFERENCES[value] }))}
                onChange={fill('reference')}
              />
            );
          case 'side':
            return (
              <Choice
                key="side"
                label="Side"
                value={textOf(field)}
                options={SIDES}
                onChange={fill('side')}
              />
            );
        }
      })}
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

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  onChange: (value: string) => void;
}) {
  return (
    <label>
      {label}
      <Select value={value} onChange={onChange} aria-label={label} options={options} />
    </label>
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
