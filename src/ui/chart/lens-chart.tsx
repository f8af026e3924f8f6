'use client';

import { memo, useId, useMemo, type ReactNode } from 'react';
import { formatQuantity } from '@/core/quantity/format';
import { frequencyLabel, frequencyTicks, uncrowded, type ValueAxis } from './axis';
import { pathOf, scalesOf, type ChartContent, type ChartLayer, type PlotBox } from './chart-model';
import { useSize, type Size } from './use-size';
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

/** One large picture over a logarithmic frequency axis: grid, axes, regions, layers. */
export function LensChart(props: LensChartProps) {
  const [host, size] = useSize<HTMLDivElement>();
  return (
    <div ref={host} className={styles.host} role="group" aria-label={props.title} data-picture>
      {size && size.width > 80 && size.height > 80 && <Picture {...props} {...size} />}
    </div>
  );
}

/** What stands around the plot: words of the axes to the left and below, a little air elsewhere. */
const MARGIN = { top: 8, right: 12, bottom: 28 };
const leftOf = (unit: string) => (unit === 's' ? 58 : 44);

function Picture({
  width,
  height,
  fromHz,
  toHz,
  axis,
  unit,
  content,
  children,
}: LensChartProps & Size) {
  const box = useMemo(() => {
    const x = leftOf(unit);
    const [w, h] = [width - x - MARGIN.right, height - MARGIN.top - MARGIN.bottom];
    return { x, y: MARGIN.top, width: w, height: h };
  }, [width, height, unit]);
  return (
    <>
      <svg width={width} height={height} className={styles.picture}>
        <Frame box={box} fromHz={fromHz} toHz={toHz} axis={axis} unit={unit} />
        <Layers box={box} fromHz={fromHz} toHz={toHz} domain={axis.domain} content={content} />
      </svg>
      {children?.(box)}
    </>
  );
}

interface FrameProps {
  box: PlotBox;
  fromHz: number;
  toHz: number;
  axis: ValueAxis;
  unit: string;
}

/** Grid and axes: the part that stays while curves change. */
const Frame = memo(function Frame({ box, fromHz, toHz, axis, unit }: FrameProps) {
  const scales = scalesOf(box, fromHz, toHz, axis.domain);
  const [right, bottom] = [box.x + box.width, box.y + box.height];
  const ticks = frequencyTicks(fromHz, toHz).map((hz) => {
    const text = frequencyLabel(hz);
    return { hz, text, at: Math.min(scales.x(hz), right), wide: text.length * LETTER };
  });
  const shown = uncrowded(ticks);
  return (
    <g>
      {ticks.map(({ hz, at }) => (
        <line key={hz} x1={at} x2={at} y1={box.y} y2={bottom} className={styles.grid} />
      ))}
      {axis.ticks.map((value) => (
        <line
          key={value}
          x1={box.x}
          x2={right}
          y1={scales.y(value)}
          y2={scales.y(value)}
          className={styles.grid}
        />
      ))}
      <path d={`M${box.x} ${box.y}V${bottom}H${right}`} className={styles.axes} />
      {shown.map(({ hz, text, at }) => (
        <text key={hz} x={at} y={bottom + 18} textAnchor="middle" className={styles.tick}>
          {text}
        </text>
      ))}
      {axis.ticks.map((value) => (
        <text
          key={value}
          x={box.x - 8}
          y={scales.y(value) + 4}
          textAnchor="end"
          className={styles.tick}
        >
          {axisLabel(value, axis, unit)}
        </text>
      ))}
    </g>
  );
});

/** Width of a letter of the ticks. */
const LETTER = 6.6;

/** Values along the axis; the unit stands at the top one only. Seconds are printed with their prefix. */
function axisLabel(value: number, { ticks }: ValueAxis, unit: string): string {
  if (unit === 's') return formatQuantity(value, 'seconds', { unit: true, digits: 3 });
  const top = value === ticks[ticks.length - 1];
  return `${value < 0 ? '−' : ''}${Math.abs(value)}${top ? (unit === '°' ? unit : ` ${unit}`) : ''}`;
}

interface LayersProps {
  box: PlotBox;
  fromHz: number;
  toHz: number;
  domain: readonly [number, number];
  content: ChartContent;
}

/** Regions to keep out of, and the curves. */
function Layers({ box, fromHz, toHz, domain, content }: LayersProps) {
  const { layers, trials, forbidden } = content;
  const clip = useId();
  const hatch = useId();
  const scales = useMemo(() => scalesOf(box, fromHz, toHz, domain), [box, fromHz, toHz, domain]);
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
