'use client';

import { Slider } from 'antd';
import type { Control } from '@/core/sheet/schema';
import { attempt } from '../shell/tell';
import { removeControl, setControl } from './actions/controls';
import { setUi } from './ui-state';
import { CONTROL } from './use-evaluation';
import styles from './graft-sentence.module.css';

/** The knobs and control voltages of a sheet, each as a slider; its travel is shown while it is pointed at. */
export function Controls({ controls }: { controls: readonly Control[] }) {
  if (controls.length === 0) return null;
  return (
    <div className={styles.controls} role="group" aria-label="Controls">
      {controls.map(({ id, name, at }) => (
        <div
          key={id}
          className={styles.control}
          onPointerEnter={() => setUi({ pointedPart: `${CONTROL}${id}` })}
          onPointerLeave={() => setUi({ pointedPart: null })}
          onFocus={() => setUi({ pointedPart: `${CONTROL}${id}` })}
          onBlur={() => setUi({ pointedPart: null })}
        >
          <b>{name}</b>
          <Slider
            className={styles.slider}
            min={0}
            max={100}
            value={Math.round(at * 100)}
            ariaLabelForHandle={`Control ${name}`}
            tooltip={{ open: false }}
            onChange={(percent) => attempt(() => setControl(id, percent / 100), 'control')}
          />
          <span className="mono">{Math.round(at * 100)} %</span>
          <button
            type="button"
            className={styles.gone}
            aria-label={`Let ${name} go`}
            onClick={() => attempt(() => removeControl(id))}
          >
            ×
          </button>
        </div>
      ))}
    </div>
  );
}
