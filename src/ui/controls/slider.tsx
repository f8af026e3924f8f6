'use client';

import { Slider as AntSlider } from 'antd';
import type { KeyboardEvent } from 'react';
import styles from './slider.module.css';

interface SliderProps {
  /** What is set by it. */
  label: string;
  value: number;
  min: number;
  max: number;
  /** What an arrow key moves it by. */
  step?: number;
  className?: string;
  onChange: (value: number) => void;
}

/** So many steps a key goes; Page Up and Page Down go ten at a time, Home and End to either end. */
const STEPS: Partial<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -10,
  PageUp: 10,
  Home: -Infinity,
  End: Infinity,
};

/**
 * A value set by hand.
 *
 * Keys are taken here and not by the slider within: it keeps a state of its own for each press and
 * clears that in an effect. Of presses that come faster than the page gets to what is not urgent, as
 * those of a held key do on a busy machine, such updates add up to React's limit of fifty nested
 * ones, where it throws and the press is lost.
 */
export function Slider({ label, className, step = 1, ...props }: SliderProps) {
  const { value, min, max, onChange } = props;
  const onKey = (event: KeyboardEvent) => {
    const steps = STEPS[event.key];
    if (steps === undefined || event.ctrlKey || event.altKey || event.metaKey) return;
    // The page would scroll.
    event.preventDefault();
    const moved = Math.min(max, Math.max(min, value + steps * step));
    // A value between two steps goes on to one of them.
    const next = min + Math.round((moved - min) / step) * step;
    if (next !== value) onChange(next);
  };
  return (
    <div className={className} onKeyDown={onKey}>
      <AntSlider
        {...props}
        className={styles.slider}
        step={step}
        keyboard={false}
        tooltip={{ open: false }}
        ariaLabelForHandle={label}
      />
    </div>
  );
}
