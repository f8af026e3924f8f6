import { Button, Input, Segmented, Select } from 'antd';
import { useState } from 'react';
import { TAPERS } from '@/core/circuit/devices/potentiometer';
import { messageOf, ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import { LONGEST_QUANTITY, parseQuantity } from '@/core/quantity/parse';
import { partnersOf, usualKnob, type KnobPlan, type Taper } from '@/core/sheet/knobs/make-knob';
import type { Stage } from '@/core/sheet/schema';
import { drawnParts } from '@/core/sheet/stage';
import { editView } from '@/store/sheet-session';
import { usePreferences } from '@/store/preferences';
import { tell } from '../shell/tell';
import { addKnob } from './actions/controls';
import { TAPER_WORDS } from './knob-words';
import { setUi } from './ui-state';
import styles from './knob-form.module.css';

interface KnobFormProps {
  stage: Stage;
  part: string;
  names: ReadonlyMap<string, string>;
  onDone: () => void;
}

const ALONE = '';

/** A potentiometer in the place of a resistor, or of two: what it is made of, and what it is called. */
export function KnobForm({ stage, part, names, onDone }: KnobFormProps) {
  const mark = usePreferences((p) => p.mark);
  const usual = usualKnob(stage, part);
  const print = (ohms: number) => formatQuantity(ohms, 'ohms', { mark, digits: 4 });
  const [as, setAs] = useState<KnobPlan['as']>('variable');
  const [other, setOther] = useState(ALONE);
  const [track, setTrack] = useState(print(usual.trackOhms));
  const [series, setSeries] = useState(print(usual.seriesOhms));
  const [taper, setTaper] = useState<Taper>('linear');
  const [mismatch, setMismatch] = useState('0');
  const [reversed, setReversed] = useState(false);
  const [name, setName] = useState('Knob');
  const [problem, setProblem] = useState<string | null>(null);
  const partners = partnersOf(stage, part);
  const resistors = drawnParts(stage).filter((p) => p.kind === 'resistor' && p.id !== part);
  const choices = as === 'divider' ? partners : resistors.map((r) => r.id);
  const nameOf = (id: string) => names.get(id) ?? id;
  const second = choices.includes(other) ? other : as === 'divider' ? (choices[0] ?? ALONE) : ALONE;
  const put = () => {
    try {
      const plan: KnobPlan = {
        as,
        parts: second === ALONE ? [part] : [part, second],
        trackOhms: parseQuantity(track, 'ohms', mark),
        seriesOhms: isNothing(series) ? 0 : parseQuantity(series, 'ohms', mark),
        taper,
        mismatch: isNothing(mismatch) ? 0 : parseQuantity(mismatch, 'ratio', mark) / 100,
        reversed,
      };
      addKnob(stage.id, plan, name.trim() || 'Knob');
      setUi({ partId: null });
      editView({ lens: 'travel' });
      tell(`${name.trim() || 'Knob'} turns ${plan.parts.map(nameOf).join(' and ')}`);
      onDone();
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
    }
  };
  const field = (label: string, value: string, set: (text: string) => void, unit: string) => (
    <label>
      <span>{label}</span>
      <Input
        className="mono"
        aria-label={label}
        value={value}
        suffix={unit}
        maxLength={LONGEST_QUANTITY}
        onChange={(e) => {
          set(e.target.value);
          setProblem(null);
        }}
      />
    </label>
  );
  return (
    <form
      className={styles.form}
      aria-label={`A knob for ${nameOf(part)}`}
      onSubmit={(e) => {
        e.preventDefault();
        put();
      }}
    >
      <Segmented<KnobPlan['as']>
        aria-label="How it is wired"
        value={as}
        options={[
          { value: 'variable', label: 'Variable resistor' },
          { value: 'divider', label: 'Divider', disabled: partners.length === 0 },
        ]}
        onChange={setAs}
      />
      <label>
        <span>{as === 'divider' ? 'dividing with' : 'on one shaft with'}</span>
        <Select
          aria-label={as === 'divider' ? 'Dividing with' : 'On one shaft with'}
          value={second}
          options={[
            ...(as === 'divider' ? [] : [{ value: ALONE, label: 'nothing: alone' }]),
            ...choices.map((id) => ({ value: id, label: nameOf(id) })),
          ]}
          onChange={setOther}
        />
      </label>
      {field('track', track, setTrack, 'Ω')}
      {field(as === 'divider' ? 'in line at both ends' : 'in line with it', series, setSeries, 'Ω')}
      <label>
        <span>taper</span>
        <Select<Taper>
          aria-label="Taper"
          value={taper}
          options={TAPERS.map((t) => ({ value: t, label: TAPER_WORDS[t] }))}
          onChange={setTaper}
        />
      </label>
      {as === 'variable' &&
        second !== ALONE &&
        field('second track ahead by', mismatch, setMismatch, '%')}
      <label>
        <span>turned up it has</span>
        <Select<'more' | 'less'>
          aria-label="Turned up it has"
          value={reversed ? 'less' : 'more'}
          options={[
            { value: 'more', label: as === 'divider' ? 'more above the wiper' : 'more resistance' },
            { value: 'less', label: as === 'divider' ? 'less above the wiper' : 'less resistance' },
          ]}
          onChange={(is) => setReversed(is === 'less')}
        />
      </label>
      <label>
        <span>name</span>
        <Input
          aria-label="name"
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      {problem !== null && (
        <p className={styles.problem} role="alert">
          {problem}
        </p>
      )}
      <Button type="primary" htmlType="submit">
        Put the knob in
      </Button>
    </form>
  );
}

const isNothing = (text: string) => /^\s*[+-]?0*([.,]0*)?\s*$/.test(text);
