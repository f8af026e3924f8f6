'use client';

import { Popover, Slider } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { isChosenKind } from '@/core/fit/supply';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { drawnParts, quantityOfPart, valuesOf } from '@/core/sheet/stage';
import { printMeasured } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { Coming } from '../shell/coming';
import { attempt } from '../shell/tell';
import { setValue } from './actions/parts';
import { useEvaluated } from './use-evaluation';
import styles from './try-slider.module.css';

const SolveForm = lazy(() => import('./solve-form').then((m) => ({ default: m.SolveForm })));

const MadeForm = lazy(() => import('./made-form').then((m) => ({ default: m.MadeForm })));

/** What a part is made up of, in a word. */
const MADE = { single: '1 part', parallel: '2 parts', series: '2 parts', trimmer: 'trimmed' };

/** Percent either way. */
const REACH = 30;

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
  const [base] = useState({ value: valuesOf(stage)[part], reading: present });
  const value = valuesOf(stage)[part];
  const quantity = quantityOfPart(stage, part)!.quantity;
  const { kind } = drawnParts(stage).find((p) => p.id === part)!;
  const percent = Math.round((value / base.value - 1) * 1000) / 10;
  return (
    <div className={styles.host}>
      <span className={styles.label}>
        Try <b>{name}</b>
      </span>
      <Popover
        trigger="click"
        placement="topLeft"
        destroyOnHidden
        content={
          <Suspense fallback={<Coming />}>
            <SolveForm sheet={sheet} stage={stage} part={part} name={name} />
          </Suspense>
        }
      >
        <button type="button" className={styles.solve} title={`What must ${name} be?`}>
          Solve
        </button>
      </Popover>
      {isChosenKind(kind) && (
        <Popover
          trigger="click"
          placement="topLeft"
          destroyOnHidden
          content={
            <Suspense fallback={<Coming />}>
              <MadeForm stage={stage} part={part} name={name} />
            </Suspense>
          }
        >
          <button type="button" className={styles.solve} title={`What is ${name} made up of?`}>
            {MADE[stage.parts[part].made?.how ?? 'single']}
          </button>
        </Popover>
      )}
      <Slider
        className={styles.slider}
        min={-REACH}
        max={REACH}
        step={0.5}
        value={Math.max(-REACH, Math.min(REACH, percent))}
        onChange={(p) =>
          attempt(
            () =>
              setValue(
                stage.id,
                part,
                Number((base.value * (1 + p / 100)).toPrecision(6)),
                `try ${stage.id} ${part}`,
              ),
            'try',
          )
        }
        tooltip={{ open: false }}
        ariaLabelForHandle={`Try ${name}, percent`}
      />
      <span className={`mono ${styles.percent}`}>
        {formatQuantity(value, quantity, { mark, digits: 4 })} {percent > 0 ? '+' : ''}
        {formatFixed(percent, 1, mark)} %
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
