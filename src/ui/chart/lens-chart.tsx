'use client';

import { memo, useEffect, useId, useMemo, useState, type ReactNode } from 'react';
import { CartesianGrid, Line, LineChart, usePlotArea, XAxis, YAxis } from 'recharts';
import { formatQuantity } from '@/core/quantity/format';
import { frequencyLabel, frequencyTicks, type ValueAxis } from './axis';
import {
  ContentContext,
  pathOf,
  scalesOf,
  useChartContent,
  type ChartContent,
  type ChartLayer,
  type PlotBox,
} from './chart-model';
import { useSize } from './use-size';
import styles from './lens-chart.module.css';

export interface LensChartProps {
  title: string;
  fromHz: number;
  toHz: number;
  axis: ValueAxis;
  unit: string;
  content: ChartContent;
  /** Drawn over the plot, told its box. */
  children?: (box: PlotBox) => ReactNode;
}

const MARGIN = { top: 8, right: 12, bottom: 4, left: 0 };

/** One large picture over a logarithmic frequency axis: grid, axes, regions, layers. */
export function LensChart({ title, fromHz, toHz, axis, unit, content, children }: LensChartProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const [box, setBox] = useState<PlotBox>();
  return (
    <div ref={host} className={styles.host} role="group" aria-label={title} data-picture>
      {size && size.width > 80 && size.height > 80 && (
        <ContentContext.Provider value={content}>
          <Frame {...size} fromHz={fromHz} toHz={toHz} axis={axis} unit={unit} onBox={setBox} />
          {box && children?.(box)}
        </ContentContext.Provider>
      )}
    </div>
  );
}

interface FrameProps {
  width: number;
  height: number;
  fromHz: number;
  toHz: number;
  axis: ValueAxis;
  unit: string;
  onBox: (box: PlotBox) => void;
}

/** The part that stays while curves change; the layers inside it follow the context. */
const Frame = memo(function Frame({ width, height, fromHz, toHz, axis, unit, onBox }: FrameProps) {
  const ticks = useMemo(() => frequencyTicks(fromHz, toHz), [fromHz, toHz]);
  // Two empty points are enough for the frame to lay out its axes; the layers bring their own.
  const ends = useMemo(
    () => [
      { hz: fromHz, value: axis.domain[0] },
      { hz: toHz, value: axis.domain[0] },
    ],
    [fromHz, toHz, axis],
  );
  return (
    <LineChart width={width} height={height} data={ends} margin={MARGIN} accessibilityLayer={false}>
      <CartesianGrid stroke="var(--grid)" />
      <XAxis
        dataKey="hz"
        type="number"
        scale="log"
        domain={[fromHz, toHz]}
        ticks={ticks}
        tickFormatter={frequencyLabel}
        allowDataOverflow
        interval="preserveStartEnd"
        stroke="var(--hairline)"
        tickLine={false}
        height={24}
        tick={{ fill: 'var(--soft)', fontSize: 11, fontFamily: 'var(--mono)' }}
      />
      <YAxis
        dataKey="value"
        type="number"
        domain={[axis.domain[0], axis.domain[1]]}
        ticks={axis.ticks}
        allowDataOverflow
        interval={0}
        stroke="var(--hairline)"
        tickLine={false}
        width={unit === 's' ? 58 : 44}
        tickFormatter={(value: number) => axisLabel(value, axis, unit)}
        tick={{ fill: 'var(--soft)', fontSize: 11, fontFamily: 'var(--mono)' }}
      />
      <Line
        dataKey="value"
        stroke="none"
        dot={false}
        activeDot={false}
        isAnimationActive={false}
        legendType="none"
      />
      <Layers fromHz={fromHz} toHz={toHz} domain={axis.domain} onBox={onBox} />
    </LineChart>
  );
});

/** Values along the axis; the unit stands at the top one only. Seconds are printed with their prefix. */
function axisLabel(value: number, { ticks }: ValueAxis, unit: string): string {
  if (unit === 's') return formatQuantity(value, 'seconds', { unit: true, digits: 3 });
  const top = value === ticks[ticks.length - 1];
  return `${value < 0 ? '−' : ''}${Math.abs(value)}${top ? (unit === '°' ? unit : ` ${unit}`) : ''}`;
}

interface LayersProps {
  fromHz: number;
  toHz: number;
  domain: readonly [number, number];
  onBox: (box: PlotBox) => void;
}

function Layers({ fromHz, toHz, domain, onBox }: LayersProps) {
  const area = usePlotArea();
  const { layers, trials, forbidden } = useChartContent();
  const clip = useId();
  const hatch = useId();
  const [x, y, width, height] = [area?.x ?? 0, area?.y ?? 0, area?.width ?? 0, area?.height ?? 0];
  const box = useMemo(() => ({ x, y, width, height }), [x, y, width, height]);
  useEffect(() => {
    if (box.width > 0) onBox(box);
  }, [box, onBox]);
  const scales = useMemo(() => scalesOf(box, fromHz, toHz, domain), [box, fromHz, toHz, domain]);
  if (box.width <= 0) return null;
  return (
    <g>
      <defs>
        <clipPath id={clip}>
          <rect x={box.x} y={box.y} width={box.width} height={box.height} />
        </clipPath>
        <pattern
          id={hatch}
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="8" className={styles.hatch} />
        </pattern>
      </defs>
      <g clipPath={`url(#${clip})`}>
        {forbidden.map((region, i) => {
          const left = Math.max(box.x, scales.x(Math.max(region.fromHz, fromHz)));
          const right = Math.min(box.x + box.width, scales.x(Math.min(region.toHz, toHz)));
          const top = region.below === undefined ? box.y : Math.max(box.y, scales.y(region.below));
          const bottom =
            region.above === undefined
              ? box.y + box.height
              : Math.min(box.y + box.height, scales.y(region.above));
          if (right <= left || bottom <= top) return null;
          return (
            <rect
              key={i}
              x={left}
              y={top}
              width={right - left}
              height={bottom - top}
              fill={`url(#${hatch})`}
              className={styles.forbidden}
            />
          );
        })}
        {layers.map((layer) => (
          <LayerPath key={layer.id} layer={layer} scales={scales} box={box} />
        ))}
        {trials.map((layer) => (
          <LayerPath key={layer.id} layer={layer} scales={scales} box={box} />
        ))}
      </g>
    </g>
  );
}

interface LayerPathProps {
  layer: ChartLayer;
  scales: ReturnType<typeof scalesOf>;
  box: PlotBox;
}

/** One curve. Drawn again only when its own points or the scales change. */
const LayerPath = memo(
  function LayerPath({ layer, scales, box }: LayerPathProps) {
    return (
      <path
        d={pathOf(layer.x, layer.y, scales, box)}
        className={styles[layer.look]}
        fill="none"
        data-layer={layer.id}
      />
    );
  },
  (a, b) =>
    a.layer.x === b.layer.x &&
    a.layer.y === b.layer.y &&
    a.layer.look === b.layer.look &&
    a.scales === b.scales,
);
