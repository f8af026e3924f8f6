import type { ReactNode } from 'react';
import type { ValueAxis } from './axis';
import { LensChart } from './lens-chart';
import { LayerKey, type ChartLayer } from './layers';
import styles from './keyed-chart.module.css';

interface KeyedChartProps {
  title: string;
  fromHz: number;
  toHz: number;
  axis: ValueAxis;
  layers: readonly ChartLayer[];
  unit?: string;
  /** How much of the room that several share it takes. */
  size: 'large' | 'small';
  /** What is said beside the names of the layers. */
  children?: ReactNode;
}

/** Something over frequency under the names of its layers. */
export function KeyedChart({ layers, size, unit = 'dB', children, ...chart }: KeyedChartProps) {
  return (
    <>
      <p className={styles.keys}>
        {layers.map(({ id, kind, look, name }) => (
          <span key={id}>
            <LayerKey kind={kind} look={look} /> {name}
          </span>
        ))}
        {children}
      </p>
      <div className={styles[size]}>
        <LensChart {...chart} unit={unit} layers={layers} />
      </div>
    </>
  );
}
