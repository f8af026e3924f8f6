'use client';

import { useMemo, type ReactNode } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import type { ValueAxis } from './axis';
import { useFrequencyAxis } from './use-frequency-axis';
import type { ChartLayer } from './layers';
import { Plot } from './plot';
import type { PlotAxis, PlotBox, Scales } from './scales';
import { useSize } from './use-size';
import styles from './lens-chart.module.css';

export interface LensChartProps {
  title: string;
  fromHz: number;
  toHz: number;
  axis: ValueAxis;
  unit: string;
  layers: readonly ChartLayer[];
  /** Laid over the picture. */
  children?: (scales: Scales, box: PlotBox) => ReactNode;
}

/** Room for the words of the upright axis: the same for every axis of numbers, so that the plot stays put. */
const leftOf = (unit: string, { labels }: ValueAxis) => (unit === 's' || labels ? 58 : 44);

/** One large picture over a logarithmic frequency axis. */
export function LensChart({ title, fromHz, toHz, axis, unit, layers, children }: LensChartProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const x = useFrequencyAxis(fromHz, toHz);
  const y = useMemo<PlotAxis>(
    () => ({
      domain: axis.domain,
      ticks: axis.ticks.map((value) => ({ value, text: valueLabel(value, axis, unit) })),
    }),
    [axis, unit],
  );
  return (
    <div ref={host} className={styles.host} role="group" aria-label={title} data-picture>
      {size && size.width > 80 && size.height > 80 && (
        <Plot {...size} x={x} y={y} layers={layers} left={leftOf(unit, axis)} over={children} />
      )}
    </div>
  );
}

/** Values along the axis; the unit stands at the top one only. Seconds are printed with their prefix. */
function valueLabel(value: number, { ticks, labels }: ValueAxis, unit: string): string {
  if (unit === 's') return formatQuantity(value, 'seconds', { unit: true, digits: 3 });
  const top = value === ticks[ticks.length - 1];
  const number = labels?.[ticks.indexOf(value)] ?? `${value < 0 ? '−' : ''}${Math.abs(value)}`;
  return `${number}${top && unit ? (unit === '°' ? unit : ` ${unit}`) : ''}`;
}
