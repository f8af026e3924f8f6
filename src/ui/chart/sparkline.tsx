import { pathOf, scalesOf } from './scales';

/** A small bare curve over its own frequency axis, for cards. */
export function Sparkline({
  x,
  y,
  floor,
  width,
  height,
  className,
}: {
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  floor: number;
  width: number;
  height: number;
  className?: string;
}) {
  let top = -Infinity;
  for (let k = 0; k < y.length; k++) if (Number.isFinite(y[k])) top = Math.max(top, y[k]);
  const box = { x: 1, y: 2, width: width - 2, height: height - 4 };
  const domain = [top - Math.max(6, -floor), top] as const;
  const scales = scalesOf(box, { domain: [x[0], x[x.length - 1]], log: true }, { domain });
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className={className}
      preserveAspectRatio="none"
      aria-hidden
    >
      <path
        d={Number.isFinite(top) ? pathOf(x, y, scales, box) : ''}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.6}
        vectorEffect="non-scaling-stroke"
        strokeLinejoin="round"
      />
    </svg>
  );
}
