'use client';

import { Button, Input, Select } from 'antd';
import { useMemo, useState } from 'react';
import { mainHz, type Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { MEASURE_CHOICES, type MeasureField } from '@/core/response/readings';
import type { Output } from '@/core/sheet/schema';
import { heardOf, outputsOf } from '@/core/sheet/stage';
import { outputName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { useSession } from '@/store/sheet-session';
import { addReading } from './actions/readings';
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
  const outputs = useOutputs();
  const [output, setOutput] = useState('');
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
      const at = outputs.find((o) => o.value === output)?.of;
      const measure = measureOf(choice, Object.assign({}, ...fields) as object);
      addReading({ measure, ...(at ? { at } : {}) });
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
      {outputs.length > 1 && (
        <Choice label="Read at" value={output} options={outputs} onChange={setOutput} />
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

/** Where a reading can be taken: the end of the path, and every output along it. */
function useOutputs(): { value: string; label: string; of?: Output }[] {
  const stages = useSession((s) => s.content?.ways[0].stages);
  return useMemo(() => {
    const active = stages?.filter((s) => !s.bypassed) ?? [];
    const ids = (stages ?? []).map((s) => s.id);
    const along = active.flatMap((stage, i) => {
      const several = outputsOf(stage);
      const heard = heardOf(stage).name;
      return several.flatMap(({ name }): Output[] => {
        // What the last stage passes on is the end of the path.
        if (name === heard) return i === active.length - 1 ? [] : [{ stage: stage.id }];
        return [{ stage: stage.id, port: name }];
      });
    });
    return [
      { value: '', label: 'the end of the path' },
      ...along.map((of) => ({ value: JSON.stringify(of), label: outputName(of, ids), of })),
    ];
  }, [stages]);
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
