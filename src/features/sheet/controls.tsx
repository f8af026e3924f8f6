'use client';

import { Select, type RefSelectProps } from 'antd';
import { lazy, useMemo, useRef, type CSSProperties } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Control, Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { editView } from '@/store/sheet-session';
import { Slider } from '@/ui/controls/slider';
import { FormPopover } from '../shell/form-popover';
import { useCommandStore, useCommands, type Command } from '../shell/commands';
import { attempt } from '../shell/tell';
import { removeControl, setControl, setControlKey, turnControl } from './actions/controls';
import { alikeWherever, standsAt } from './control-words';
import { setUi } from './ui-state';
import { useAlike, useSteady } from './use-alike';
import { useLens } from './use-lens';
import { CONTROL } from './use-evaluation';
import styles from './graft-sentence.module.css';

const MidiForm = lazy(() => import('../midi/midi-form').then((m) => ({ default: m.MidiForm })));

/** A key turns its knob by so much of the travel. */
const STEP = 0.02;
const OWNER = 'controls';
const LETTERS = [...'abcdefghijklmnopqrstuvwxyz'];

/** The knobs and control voltages of a sheet, each as a slider; its travel is shown while it is pointed at. */
export function Controls({ sheet }: { sheet: Sheet }) {
  const { controls } = sheet;
  useControlKeys(controls);
  if (controls.length === 0) return null;
  return (
    <div className={styles.controls} role="group" aria-label="Controls">
      {controls.map((control) => (
        <Row key={control.id} sheet={sheet} control={control} controls={controls} />
      ))}
      <FormPopover content={<MidiForm controls={controls} />}>
        <button
          type="button"
          className={styles.midi}
          title="Move them by the knobs of a MIDI controller"
        >
          MIDI
        </button>
      </FormPopover>
    </div>
  );
}

function Row({
  sheet,
  control,
  controls,
}: {
  sheet: Sheet;
  control: Control;
  controls: readonly Control[];
}) {
  const { id, name, at } = control;
  const mark = usePreferences((p) => p.mark);
  return (
    <div
      className={styles.control}
      onPointerEnter={() => setUi({ pointedPart: `${CONTROL}${id}` })}
      onPointerLeave={() => setUi({ pointedPart: null })}
      onFocus={() => setUi({ pointedPart: `${CONTROL}${id}` })}
      onBlur={() => setUi({ pointedPart: null })}
    >
      <button
        type="button"
        className={styles.knob}
        title="What its travel does"
        onClick={() => editView({ lens: control.for ? 'control' : 'travel' })}
      >
        {name}
      </button>
      <Slider
        className={styles.slider}
        label={`Control ${name}`}
        min={0}
        max={100}
        value={Math.round(at * 100)}
        onChange={(percent) => attempt(() => setControl(id, percent / 100), 'control')}
      />
      <span className="mono">{standsAt(control, mark)}</span>
      <KeyChoice control={control} controls={controls} />
      <button
        type="button"
        className={styles.gone}
        aria-label={`Let ${name} go`}
        onClick={() => attempt(() => removeControl(id))}
      >
        ×
      </button>
      {control.for === 'resonance' && <Sings sheet={sheet} control={control} />}
    </div>
  );
}

/** What bears on where a filter sings, besides its controls. */
const SINGING = ['ways', 'source', 'parts'] as const;

/** Where it begins to sing as it is turned up, from the poles of the biased circuit. */
function Sings({ sheet, control }: { sheet: Sheet; control: Control }) {
  const mark = usePreferences((p) => p.mark);
  const alike = useMemo(() => alikeWherever(control.id, SINGING), [control.id]);
  const settled = useAlike(sheet, alike);
  const { picture, problem, stale } = useLens(settled, { lens: 'singing', control: control.id });
  if (problem !== null) return <p className={styles.sings}>{problem}</p>;
  if (!picture) return <p className={styles.sings}>looking for where it sings …</p>;
  const { at, hz, why } = picture;
  if (at === null || hz === null)
    return (
      <p
        className={styles.sings}
        title={why ?? undefined}
        data-figures
        data-behind={stale || undefined}
      >
        does not sing anywhere on its travel
      </p>
    );
  return (
    <>
      <span className={styles.mark} style={{ '--at': at } as CSSProperties} aria-hidden />
      <p className={styles.sings} data-figures data-behind={stale || undefined}>
        {control.at >= at ? 'sings, from ' : 'sings at '}
        <b className="mono">{formatFixed(at * 100, 1, mark)} %</b>,{' '}
        <span className="mono">{formatQuantity(hz, 'hertz', { digits: 4, unit: true, mark })}</span>
      </p>
    </>
  );
}

const NO_KEY = '';

/** The letter that turns a knob; only those are offered that nothing else listens to. */
function KeyChoice({ control, controls }: { control: Control; controls: readonly Control[] }) {
  const lists = useCommandStore((s) => s.lists);
  const host = useRef<RefSelectProps>(null);
  const free = useMemo(() => {
    const taken = new Set(controls.flatMap((c) => (c === control ? [] : (c.key ?? []))));
    for (const [owner, list] of lists)
      if (owner !== OWNER) for (const { keys } of list) if (keys) taken.add(keys);
    return LETTERS.filter((letter) => !taken.has(letter) && !taken.has(`shift+${letter}`));
  }, [lists, controls, control]);
  return (
    <Select
      ref={host}
      size="small"
      variant="borderless"
      popupMatchSelectWidth={false}
      aria-label={`Key of ${control.name}`}
      title="The key that turns it up; with Shift it turns it down"
      value={control.key ?? NO_KEY}
      options={[
        { value: NO_KEY, label: 'no key' },
        ...free.map((letter) => ({ value: letter, label: `key ${letter.toUpperCase()}` })),
      ]}
      onChange={(key) => {
        attempt(() => setControlKey(control.id, key === NO_KEY ? undefined : key));
        // A field that has the focus would take the key for itself.
        host.current?.blur();
      }}
    />
  );
}

/** Each knob that has a key is turned by it, and found in the palette. */
function useControlKeys(controls: readonly Control[]): void {
  const bound = useSteady(controls.map(({ id, name, key }) => ({ id, name, key })));
  const commands = useMemo(
    () =>
      bound.flatMap(({ id, name, key }): Command[] => [
        {
          id: `up ${id}`,
          title: `Turn ${name} up`,
          group: 'Sheet',
          ...(key ? { keys: key } : {}),
          run: () => attempt(() => turnControl(id, STEP), 'control'),
        },
        {
          id: `down ${id}`,
          title: `Turn ${name} down`,
          group: 'Sheet',
          ...(key ? { keys: `shift+${key}` } : {}),
          run: () => attempt(() => turnControl(id, -STEP), 'control'),
        },
      ]),
    [bound],
  );
  useCommands(OWNER, commands);
}
