'use client';

import { memo, useId, useMemo, type ReactNode } from 'react';
import { CartesianGrid, Line, LineChart, usePlotArea, XAxis, YAxis } from 'recharts';
import type { LayerLook, PlotBox } from './chart-model';
import { niceTicks } from './axis';
import { useSize, type Size } from './use-size';
import lines from './lens-chart.module.css';
import styles from './mini-plot.module.css';

export interface MiniLine {
  look: LayerLook | 'input';
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

export interface MiniPlotProps {
  title: string;
  /** Said to those who do not see the picture. */
  summary: string;
  lines: readonly MiniLine[];
  x: readonly [number, number];
  y: readonly [number, number];
  /** Prints a place on the horizontal axis. */
  xLabel: (x: number) => string;
  yLabel: (y: number) => string;
  logX?: boolean;
  /** Marked places on the horizontal axis. */
  marks?: readonly { x: number; text: string }[];
  children?: (scales: MiniScales) => ReactNode;
}

export interface MiniScales {
  x: (value: number) => number;
  y: (value: number) => number;
}

const MARGIN = { top: 8, right: 8, bottom: 0, left: 0 };
/** Width of a letter of the ticks, and what stands between them and the picture. */
const LETTER = 6.6;
const BESIDE = 9;
const TICK = { fill: 'var(--soft)', fontSize: 11, fontFamily: 'var(--mono)' };
const AXIS = { type: 'number', stroke: 'var(--hairline)', tickLine: false, tick: TICK } as const;

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
        {size && size.width > 60 && size.height > 50 && <Plot {...props} {...size} />}
      </div>
    </figure>
  );
});

function Plot(props: MiniPlotProps & Size) {
  const { x, y, xLabel, yLabel, logX, marks = [], width, height } = props;
  const yTicks = niceTicks(y[0], y[1], Math.max(2, Math.floor(height / 34)));
  // The longest word of the upright axis decides how much room it has.
  const left = Math.ceil(Math.max(3, ...yTicks.map((v) => yLabel(v).length)) * LETTER + BESIDE);
  const xTicks = logX
    ? marks.map((m) => m.x)
    : niceTicks(x[0], x[1], Math.max(3, Math.floor(width / 80)));
  return (
    <LineChart
      width={width}
      height={height}
      // Two points are enough for the axes; the lines bring their own.
      data={[0, 1].map((i) => ({ x: x[i], y: y[i] }))}
      margin={MARGIN}
      accessibilityLayer={false}
    >
      <CartesianGrid stroke="var(--grid)" />
      <XAxis
        {...AXIS}
        dataKey="x"
        scale={logX ? 'log' : 'linear'}
        domain={[x[0], x[1]]}
        ticks={xTicks}
        tickFormatter={(v: number) => marks.find((m) => m.x === v)?.text ?? xLabel(v)}
        allowDataOverflow
        interval="preserveStart"
        minTickGap={BESIDE}
        height={20}
      />
      <YAxis
        {...AXIS}
        dataKey="y"
        domain={[y[0], y[1]]}
        ticks={yTicks}
        tickFormatter={yLabel}
        allowDataOverflow
        interval={0}
        width={left}
      />
      <Line dataKey="y" stroke="none" dot={false} activeDot={false} isAnimationActive={false} />
      <Lines {...props} />
    </LineChart>
  );
}

/** The lines and whatever else is drawn, within the axes. */
function Lines({ lines: drawn, x, y, logX, children }: MiniPlotProps) {
  const area = usePlotArea();
  const clip = useId();
  const scales = useMemo(() => area && miniScales(x, y, area, logX === true), [x, y, area, logX]);
  if (!area || !scales) return null;
  return (
    <g>
      <clipPath id={clip}>
        <rect x={area.x} y={area.y} width={area.width} height={area.height} />
      </clipPath>
      <g clipPath={`url(#${clip})`} fill="none">
        {drawn.map((line, i) => (
          <path
            key={i}
            d={pathThrough(line, scales)}
            className={line.look === 'input' ? styles.input : lines[line.look]}
          />
        ))}
      </g>
      {children?.(scales)}
    </g>
  );
}

function miniScales(
  x: readonly [number, number],
  y: readonly [number, number],
  box: PlotBox,
  logX: boolean,
): MiniScales {
  const along = logX ? Math.log : (v: number) => v;
  const [a, b] = [along(x[0]), along(x[1])];
  return {
    x: (v) => box.x + ((along(v) - a) / (b - a)) * box.width,
    y: (v) => box.y + ((y[1] - v) / (y[1] - y[0])) * box.height,
  };
}

function pathThrough({ x, y }: MiniLine, scales: MiniScales): string {
  let d = '';
  for (let k = 0; k < x.length; k++)
    d += `${k === 0 ? 'M' : 'L'}${scales.x(x[k]).toFixed(1)} ${scales.y(y[k]).toFixed(1)}`;
  return d;
}
