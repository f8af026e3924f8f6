'use client';

import { lazy, useState } from 'react';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { printMeasured } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { Slider } from '@/ui/controls/slider';
import { FormPopover } from '../shell/form-popover';
import { attempt } from '../shell/tell';
import { setValue } from './actions/parts';
import { useEvaluated } from './use-evaluation';
import styles from './try-slider.module.css';

const SolveForm = lazy(() => import('./solve-form').then((m) => ({ default: m.SolveForm })));

/** Percent either way. */
const REACH = 30;

/** What a part is turned up and down from. */
interface Base {
  value: number;
  /** What it was last turned to. */
  tried: number;
  /** The first reading of it, where it is known. */
  reading: number | undefined;
}

interface TrySliderProps {
  sheet: Sheet;
  stage: Stage;
  part: string;
  name: string;
}

/** Turn one part up and down and watch the first reading move; the whole turn is one step of undo. */
export function TrySlider({ sheet, stage, part, name }: TrySliderProps) {
  const mark = usePreferences((p) => p.mark);
  const reading = sheet.readings.find((r) => r.measure.measure === 'edge') ?? sheet.readings[0];
  const result = useEvaluated((e) => e?.readings.find((r) => r.id === reading?.id)?.results.built);
  const present = result && 'measured' in result ? result.measured.value : undefined;
  const value = valuesOf(stage)[part];
  const [base, setBase] = useState<Base>({ value, tried: value, reading: present });
  // Another value came from elsewhere, by fitting or undo: it is what is tried from now on.
  if (value !== base.tried) setBase({ value, tried: value, reading: undefined });
  const quantity = quantityOfPart(stage, part)!.quantity;
  const percent = Math.round((value / base.value - 1) * 1000) / 10;
  return (
    <div className={styles.host}>
      <span className={styles.label}>
        Try <b>{name}</b>
      </span>
      <FormPopover content={<SolveForm sheet={sheet} stage={stage} part={part} name={name} />}>
        <button type="button" className={styles.solve} title={`What must ${name} be?`}>
          Solve
        </button>
      </FormPopover>
      <Slider
        className={styles.slider}
        label={`Try ${name}, percent`}
        min={-REACH}
        max={REACH}
        step={0.5}
        value={Math.max(-REACH, Math.min(REACH, percent))}
        onChange={(p) => {
          const tried = Number((base.value * (1 + p / 100)).toPrecision(6));
          if (attempt(() => setValue(stage.id, part, tried, `try ${stage.id} ${part}`), 'try'))
            setBase({ ...base, tried });
        }}
      />
      <span className={`mono ${styles.percent}`}>
        {formatQuantity(value, quantity, { mark, digits: 4 })} {percent > 0 ? '+' : ''}
        {formatFixed(percent, Math.abs(percent) < 10 ? 1 : 0, mark)} %
      </span>
      {reading && base.reading !== undefined && present !== undefined && (
        <span className={`mono ${styles.moved}`}>
          {printMeasured(reading.measure, base.reading, mark)} →{' '}
          {printMeasured(reading.measure, present, mark)}
        </span>
      )}
    </div>
  );
}
