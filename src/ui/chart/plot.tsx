'use client';

import { memo, useId, useMemo, type ReactNode } from 'react';
import { CartesianAxis, Surface } from 'recharts';
import { kindOf, type ChartLayer } from './layers';
import { scalesOf, type PlotAxis, type PlotBox, type Scales } from './scales';
import type { Size } from './use-size';
import styles from './plot.module.css';

export interface PlotProps extends Size {
  x: PlotAxis;
  y: PlotAxis;
  /** Drawn one over the other, in this order. */
  layers: readonly ChartLayer[];
  /** Room for the words of the upright axis; by their length where it is not given, pixels. */
  left?: number;
  /** Drawn over the layers, within the picture. */
  children?: (scales: Scales, box: PlotBox) => ReactNode;
  /** Laid over the picture. */
  over?: (scales: Scales, box: PlotBox) => ReactNode;
}

/** What stands around the plot apart from the words to the left. */
const MARGIN = { top: 8, right: 14, bottom: 24 };
/** Width of a letter of the ticks, and what stands between them and the picture. */
const LETTER = 6.6;
const BESIDE = 9;

/**
 * A picture with its axes, of any size: the one way in which pictures are drawn. Recharts draws axes
 * and their words; grid and layers are drawn within by our own paths, so that an edit changes one
 * path and nothing else.
 */
export function Plot({ width, height, x, y, layers, left, children, over }: PlotProps) {
  const words =
    left ?? Math.ceil(Math.max(3, ...y.ticks.map((t) => t.text.length)) * LETTER + BESIDE);
  const box = useMemo<PlotBox>(
    () => ({
      x: words,
      y: MARGIN.top,
      width: width - words - MARGIN.right,
      height: height - MARGIN.top - MARGIN.bottom,
    }),
    [width, height, words],
  );
  const scales = useMemo(() => scalesOf(box, x, y), [box, x, y]);
  return (
    <>
      <Surface width={width} height={height} className={styles.picture}>
        <Frame box={box} scales={scales} x={x} y={y} />
        <Layers box={box} scales={scales} layers={layers} />
        {children?.(scales, box)}
      </Surface>
      {over?.(scales, box)}
    </>
  );
}

interface FrameProps {
  box: PlotBox;
  scales: Scales;
  x: PlotAxis;
  y: PlotAxis;
}

const AXIS = {
  tickLine: false,
  tickSize: 0,
  className: styles.axis,
  stroke: 'var(--hairline)',
  tick: { className: styles.tick },
} as const;

/** Grid and axes: the part that stays while curves change. */
const Frame = memo(function Frame({ box, scales, x, y }: FrameProps) {
  const [right, bottom] = [box.x + box.width, box.y + box.height];
  const along = x.ticks.map(({ value }, index) => ({
    value,
    index,
    offset: 0,
    coordinate: Math.min(scales.x(value), right),
  }));
  const up = y.ticks.map(({ value }, index) => ({
    value,
    index,
    offset: 0,
    coordinate: scales.y(value),
  }));
  return (
    <g>
      <path
        d={[
          ...along.map(({ coordinate }) => `M${coordinate.toFixed(2)} ${box.y}V${bottom}`),
          ...up.map(({ coordinate }) => `M${box.x} ${coordinate.toFixed(2)}H${right}`),
        ].join('')}
        className={styles.grid}
      />
      <CartesianAxis
        {...AXIS}
        axisType="xAxis"
        orientation="bottom"
        x={box.x}
        y={bottom}
        width={box.width}
        height={MARGIN.bottom}
        // The margin has room for the last word; measured before its face is there, it seems wider.
        viewBox={{ ...box, x: 0, width: right + 2 * MARGIN.right }}
        ticks={along}
        tickFormatter={(_, k) => x.ticks[k]?.text ?? ''}
        tickMargin={6}
        interval="preserveStart"
        minTickGap={BESIDE}
      />
      <CartesianAxis
        {...AXIS}
        axisType="yAxis"
        orientation="left"
        x={0}
        y={box.y}
        width={box.x}
        height={box.height}
        viewBox={box}
        ticks={up}
        tickFormatter={(_, k) => y.ticks[k]?.text ?? ''}
        tickMargin={8}
        interval={0}
      />
    </g>
  );
});

/** The layers, cut off at the axes. */
function Layers({
  box,
  scales,
  layers,
}: Pick<FrameProps, 'box' | 'scales'> & Pick<PlotProps, 'layers'>) {
  const clip = useId();
  return (
    <>
      <clipPath id={clip}>
        <rect x={box.x} y={box.y} width={box.width} height={box.height} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        {layers.map((layer) => {
          const { Draw } = kindOf(layer);
          return <Draw key={layer.id} layer={layer} scales={scales} box={box} />;
        })}
      </g>
    </>
  );
}
