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

/** A point that a straight line passes as close to is left out, pixels. */
const UNSEEN = 0.05;

/**
 * An SVG path through points; a value that is no number breaks it, as where phase wraps. Points are
 * left out where a straight line passes within a twentieth of a pixel of them: what is drawn is the
 * same to the eye, and takes a fraction of the time.
 */
export function pathOf(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  scales: Scales,
  box: PlotBox,
): string {
  let d = '';
  const put = (letter: 'M' | 'L', px: number, py: number) => {
    d += `${letter}${px.toFixed(2)} ${py.toFixed(2)}`;
  };
  // The last point that was drawn, and the last that was not yet.
  let drawn: [number, number] | null = null;
  let pending: [number, number] | null = null;
  // Slopes from the drawn point that pass close to all points after it.
  let [least, most] = [-Infinity, Infinity];
  for (let k = 0; k < x.length; k++) {
    if (Number.isNaN(y[k]) || !Number.isFinite(x[k])) {
      if (pending) put('L', ...pending);
      drawn = pending = null;
      continue;
    }
    const [px, py] = [scales.x(x[k]), heightOf(y[k], scales, box)];
    if (!drawn) {
      put('M', px, py);
      [drawn, least, most] = [[px, py], -Infinity, Infinity];
      continue;
    }
    if (pending) {
      const slope = (py - drawn[1]) / (px - drawn[0]);
      if (!(px > pending[0] && slope >= least && slope <= most)) {
        put('L', ...pending);
        [drawn, least, most] = [pending, -Infinity, Infinity];
      }
    }
    const across = px - drawn[0];
    // A step straight up or back is drawn as it is.
    if (!(across > 0)) [least, most] = [Infinity, -Infinity];
    else {
      least = Math.max(least, (py - UNSEEN - drawn[1]) / across);
      most = Math.min(most, (py + UNSEEN - drawn[1]) / across);
    }
    pending = [px, py];
  }
  if (pending) put('L', ...pending);
  return d;
}
