/** The rectangle within the axes, pixels of the picture. */
export interface PlotBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** One direction of a picture: its ends, how it goes between them, and the places with words. */
export interface PlotAxis {
  domain: readonly [number, number];
  /** By ratio instead of by difference. */
  log?: boolean;
  /** In rising order. */
  ticks: readonly { value: number; text: string }[];
}

/** From values to pixels and, along the horizontal axis, back. */
export interface Scales {
  x: (value: number) => number;
  y: (value: number) => number;
  valueAt: (px: number) => number;
}

/** The one pair of scales behind every picture: values to the right and upwards. */
export function scalesOf(
  box: PlotBox,
  { domain: [from, to], log }: Pick<PlotAxis, 'domain' | 'log'>,
  { domain: [low, high] }: Pick<PlotAxis, 'domain'>,
): Scales {
  const perUnit = box.height / (high - low);
  const y = (value: number) => box.y + (high - value) * perUnit;
  if (log) {
    const perLog = box.width / Math.log(to / from);
    return {
      x: (value) => box.x + Math.log(value / from) * perLog,
      valueAt: (px) => from * Math.exp((px - box.x) / perLog),
      y,
    };
  }
  const per = box.width / (to - from);
  return {
    x: (value) => box.x + (value - from) * per,
    valueAt: (px) => from + (px - box.x) / per,
    y,
  };
}

/** Values far outside are drawn this far outside the picture, pixels. */
const OUTSIDE = 40;

/** The height at which a value is drawn. */
export const heightOf = (value: number, scales: Scales, box: PlotBox): number =>
  Math.min(box.y + box.height + OUTSIDE, Math.max(box.y - OUTSIDE, scales.y(value)));

/** An SVG path through points; a value that is no number breaks it, as where phase wraps. */
export function pathOf(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  scales: Scales,
  box: PlotBox,
): string {
  let d = '';
  let broken = true;
  for (let k = 0; k < x.length; k++) {
    if (Number.isNaN(y[k]) || !Number.isFinite(x[k])) {
      broken = true;
      continue;
    }
    const py = heightOf(y[k], scales, box);
    d += `${broken ? 'M' : 'L'}${scales.x(x[k]).toFixed(2)} ${py.toFixed(2)}`;
    broken = false;
  }
  return d;
}
