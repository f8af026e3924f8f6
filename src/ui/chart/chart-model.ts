/** How a layer is drawn; the line's form tells layers apart without colour. */
export type LayerLook = 'ideal' | 'built' | 'keep' | 'trial' | 'trial-dashed' | 'trial-chained';

export interface ChartLayer {
  id: string;
  name: string;
  look: LayerLook;
  x: Float64Array;
  y: Float64Array;
}

/** A region the curve should keep out of; open sides reach the edge of the picture. */
export interface ForbiddenRegion {
  fromHz: number;
  toHz: number;
  above?: number;
  below?: number;
}

export interface ChartContent {
  layers: readonly ChartLayer[];
  trials: readonly ChartLayer[];
  forbidden: readonly ForbiddenRegion[];
}

export interface Scales {
  x(hz: number): number;
  y(value: number): number;
  hzAt(px: number): number;
}

export interface PlotBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Logarithmic frequency to the right, values upwards. */
export function scalesOf(
  box: PlotBox,
  fromHz: number,
  toHz: number,
  domain: readonly [number, number],
): Scales {
  const perLog = box.width / Math.log(toHz / fromHz);
  const perUnit = box.height / (domain[1] - domain[0]);
  return {
    x: (hz) => box.x + Math.log(hz / fromHz) * perLog,
    y: (value) => box.y + (domain[1] - value) * perUnit,
    hzAt: (px) => fromHz * Math.exp((px - box.x) / perLog),
  };
}

/** An SVG path through a trace; points far outside the picture are brought to its margin. */
export function pathOf(x: Float64Array, y: Float64Array, scales: Scales, box: PlotBox): string {
  let d = '';
  const [least, most] = [box.y - 40, box.y + box.height + 40];
  let broken = true;
  for (let k = 0; k < x.length; k++) {
    // A value that is no number breaks the line: phase where it wraps.
    if (Number.isNaN(y[k]) || !Number.isFinite(x[k])) {
      broken = true;
      continue;
    }
    const py = Math.min(most, Math.max(least, scales.y(y[k])));
    d += `${broken ? 'M' : 'L'}${scales.x(x[k]).toFixed(2)} ${py.toFixed(2)}`;
    broken = false;
  }
  return d;
}
