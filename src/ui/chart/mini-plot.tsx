'use client';

import { memo, useMemo, type ReactNode } from 'react';
import { niceTicks } from './axis';
import type { ChartLayer } from './layers';
import { Plot } from './plot';
import type { PlotAxis, PlotBox, Scales } from './scales';
import { useSize, type Size } from './use-size';
import styles from './mini-plot.module.css';

export interface MiniPlotProps {
  title: string;
  /** Said to those who do not see the picture. */
  summary: string;
  layers: readonly ChartLayer[];
  x: readonly [number, number];
  y: readonly [number, number];
  /** Prints a place on the horizontal axis. */
  xLabel: (x: number) => string;
  yLabel: (y: number) => string;
  logX?: boolean;
  /** Marked places on the horizontal axis. */
  marks?: readonly { x: number; text: string }[];
  /** Drawn over the layers. */
  children?: (scales: Scales, box: PlotBox) => ReactNode;
}

/** A small picture with its own axes, for rows of them. */
export const MiniPlot = memo(function MiniPlot(props: MiniPlotProps) {
  const [host, size] = useSize<HTMLDivElement>();
  return (
    <figure className={styles.figure}>
      <figcaption>{props.title}</figcaption>
      <div
        ref={host}
        className={styles.host}
        role="img"
        aria-label={`${props.title}: ${props.summary}`}
        data-picture
      >
        {size && size.width > 60 && size.height > 50 && <Sized {...props} {...size} />}
      </div>
    </figure>
  );
});

function Sized(props: MiniPlotProps & Size) {
  const { x, y, xLabel, yLabel, logX, marks, layers, width, height, children } = props;
  const along = useMemo<PlotAxis>(
    () => ({
      domain: x,
      log: logX,
      ticks: logX
        ? (marks ?? []).map((m) => ({ value: m.x, text: m.text }))
        : niceTicks(x[0], x[1], Math.max(3, Math.floor(width / 80))).map((value) => ({
            value,
            text: xLabel(value),
          })),
    }),
    [x, logX, marks, width, xLabel],
  );
  const up = useMemo<PlotAxis>(
    () => ({
      domain: y,
      ticks: niceTicks(y[0], y[1], Math.max(2, Math.floor(height / 34))).map((value) => ({
        value,
        text: yLabel(value),
      })),
    }),
    [y, height, yLabel],
  );
  return (
    <Plot width={width} height={height} x={along} y={up} layers={layers}>
      {children}
    </Plot>
  );
}
