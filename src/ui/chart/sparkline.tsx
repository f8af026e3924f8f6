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
  const span = Math.max(6, -floor);
  const log = Math.log(x[x.length - 1] / x[0]);
  let d = '';
  for (let k = 0; k < x.length; k++) {
    // No level (-infinity dB) lies under the floor; what is no number is not drawn.
    if (Number.isNaN(y[k]) || !Number.isFinite(top)) continue;
    const px = 1 + (Math.log(x[k] / x[0]) / log) * (width - 2);
    const py = 2 + Math.min(1.5, Math.max(0, (top - y[k]) / span)) * (height - 4);
    d += `${d === '' ? 'M' : 'L'}${px.toFixed(1)} ${py.toFixed(1)}`;
  }
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
        d={d}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.6}
        vectorEffect="non-scaling-stroke"
        strokeLinejoin="round"
      />
    </svg>
  );
}
