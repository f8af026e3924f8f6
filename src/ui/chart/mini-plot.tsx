'use client';

import { memo, useId, type ReactNode } from 'react';
import type { LayerLook } from './chart-model';
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
  /** From pixels back to values. */
  xAt: (px: number) => number;
  yAt: (px: number) => number;
}

const PAD = { right: 8, top: 8, bottom: 20 };
/** Width of a letter of the ticks, and what stands between them and the picture. */
const LETTER = 6.3;
const BESIDE = 9;

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

function Plot({
  lines: drawn,
  x,
  y,
  xLabel,
  yLabel,
  logX,
  marks = [],
  width,
  height,
  children,
}: MiniPlotProps & Size) {
  const clip = useId();
  const yTicks = niceTicks(y[0], y[1], Math.max(2, Math.floor(height / 34)));
  const yWords = yTicks.map(yLabel);
  // The longest word of the upright axis decides how much room it has.
  const left = Math.ceil(Math.max(3, ...yWords.map((w) => w.length)) * LETTER + BESIDE);
  const scales = miniScales(x, y, width, height, left, logX === true);
  const xTicks = logX
    ? marks.map((m) => m.x)
    : niceTicks(x[0], x[1], Math.max(3, Math.floor(width / 80)));
  const bottom = height - PAD.bottom;
  const xWord = (v: number) => marks.find((m) => m.x === v)?.text ?? xLabel(v);
  const hidden = crowded(xTicks, (v) => ({ at: scales.x(v), wide: xWord(v).length * LETTER }));
  return (
    <svg width={width} height={height} aria-hidden>
      <clipPath id={clip}>
        <rect x={left} y={PAD.top} width={width - left - PAD.right} height={bottom - PAD.top} />
      </clipPath>
      {yTicks.map((v, i) => (
        <g key={v}>
          <line
            x1={left}
            x2={width - PAD.right}
            y1={scales.y(v)}
            y2={scales.y(v)}
            className={styles.grid}
          />
          <text x={left - 5} y={scales.y(v) + 3.5} textAnchor="end" className={styles.tick}>
            {yWords[i]}
          </text>
        </g>
      ))}
      {xTicks.map((v) => (
        <g key={v}>
          <line
            x1={scales.x(v)}
            x2={scales.x(v)}
            y1={PAD.top}
            y2={bottom}
            className={styles.grid}
          />
          <text
            x={scales.x(v)}
            y={height - 5}
            textAnchor={scales.x(v) > width - 30 ? 'end' : 'middle'}
            className={styles.tick}
          >
            {hidden.has(v) ? '' : xWord(v)}
          </text>
        </g>
      ))}
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
    </svg>
  );
}

/** Ticks whose words would run into those of the tick before. */
function crowded(
  ticks: readonly number[],
  of: (tick: number) => { at: number; wide: number },
): Set<number> {
  const hidden = new Set<number>();
  let end = -Infinity;
  for (const tick of ticks) {
    const { at, wide } = of(tick);
    if (at - wide / 2 < end) hidden.add(tick);
    else end = at + wide / 2 + BESIDE;
  }
  return hidden;
}

function miniScales(
  x: readonly [number, number],
  y: readonly [number, number],
  width: number,
  height: number,
  left: number,
  logX: boolean,
): MiniScales {
  const along = logX ? Math.log : (v: number) => v;
  const back = logX ? Math.exp : (v: number) => v;
  const [a, b] = [along(x[0]), along(x[1])];
  const w = width - left - PAD.right;
  const h = height - PAD.top - PAD.bottom;
  return {
    x: (v) => left + ((along(v) - a) / (b - a)) * w,
    y: (v) => PAD.top + ((y[1] - v) / (y[1] - y[0])) * h,
    xAt: (px) => back(a + ((px - left) / w) * (b - a)),
    yAt: (px) => y[1] - ((px - PAD.top) / h) * (y[1] - y[0]),
  };
}

function pathThrough({ x, y }: MiniLine, scales: MiniScales): string {
  let d = '';
  for (let k = 0; k < x.length; k++)
    d += `${k === 0 ? 'M' : 'L'}${scales.x(x[k]).toFixed(1)} ${scales.y(y[k]).toFixed(1)}`;
  return d;
}
